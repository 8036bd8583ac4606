<script setup lang="ts">
import { ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
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
      <label class="mb-3 block">
        <span class="heading">E-mail address</span>
        <input v-model="email" class="field mt-1" type="email" autocomplete="username" required autofocus />
      </label>
      <label class="mb-4 block">
        <span class="heading">Password</span>
        <input v-model="password" class="field mt-1" type="password" autocomplete="current-password" required />
      </label>
      <p v-if="error" role="alert" class="mb-4 rounded bg-maddertint px-3 py-2 text-madder">{{ error }}</p>
      <button class="btn btn-main w-full justify-center py-1.5" :disabled="busy">
        {{ busy ? 'Signing in…' : 'Sign in' }}
      </button>
    </form>
  </main>
</template>
