<script setup lang="ts">
import { ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import KitButton from '../kit/KitButton.vue';
import KitField from '../kit/KitField.vue';
import KitNotice from '../kit/KitNotice.vue';
import { useSession } from './store.ts';

const session = useSession();
const router = useRouter();
const route = useRoute();
const email = ref('');
const password = ref('');
const error = ref('');
const busy = ref(false);

async function submit(): Promise<void> {
  busy.value = true;
  error.value = '';
  try {
    await session.signIn(email.value, password.value);
    const to = String(route.query.to ?? '/sources');
    await router.push(to.startsWith('/') && !to.startsWith('//') ? to : '/sources');
  } catch (e) {
    error.value = (e as Error).message;
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <main class="grid h-full place-items-center bg-panel p-6">
    <form class="w-[22rem] rounded-md border border-line bg-card p-7" @submit.prevent="submit">
      <h1 class="font-serif text-display font-semibold">Pandecta<span class="text-verdigris">.</span></h1>
      <p class="mb-5 mt-1 text-muted">Your sources, found, filed, read and cited.</p>
      <KitField
        v-model="email"
        class="mb-3"
        label="E-mail address"
        above
        type="email"
        autocomplete="username"
        required
        autofocus
      />
      <KitField
        v-model="password"
        class="mb-4"
        label="Password"
        above
        type="password"
        autocomplete="current-password"
        required
      />
      <KitNotice v-if="error" tone="bad" boxed class="mb-4">{{ error }}</KitNotice>
      <KitButton look="main" type="submit" class="w-full justify-center py-1.5" :disabled="busy">{{
        busy ? 'Signing in…' : 'Sign in'
      }}</KitButton>
    </form>
  </main>
</template>
