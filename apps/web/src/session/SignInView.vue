<script setup lang="ts">
import { useTimeoutFn } from '@vueuse/core';
import { ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { ApiError } from '../api/client.ts';
import KitField from '../kit/KitField.vue';
import EntryCard from './EntryCard.vue';
import { useSending } from './sending.ts';
import { useSession } from './store.ts';

const session = useSession();
const router = useRouter();
const route = useRoute();
const email = ref('');
const password = ref('');
/** Until it is worth trying again. */
const pause = ref(0);
const { error, busy, submit } = useSending(
  async () => {
    await session.signIn(email.value, password.value);
    const to = String(route.query.to ?? '/sources');
    await router.push(to.startsWith('/') && !to.startsWith('//') ? to : '/sources');
  },
  (e) => {
    pause.value = (e instanceof ApiError && e.code === 'too_many_attempts' && e.retryAfter) || 0;
    if (pause.value) waiting.start();
  },
);
const waiting = useTimeoutFn(
  () => (error.value = ''),
  () => pause.value * 1000,
  { immediate: false },
);
</script>

<template>
  <EntryCard
    says="Your sources, found, filed, read and cited."
    does="Sign in"
    doing="Signing in…"
    :busy
    :error
    :waits="waiting.isPending.value"
    @submit="submit"
  >
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
  </EntryCard>
</template>
