<script setup lang="ts">
/** The first account of an empty installation. What opens it stands behind the # of the address, which no log sees. */
import { ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { routes } from '@pandecta/contract';
import { ApiError, ask } from '../api/client.ts';
import KitField from '../kit/KitField.vue';
import EntryCard from './EntryCard.vue';
import NewPasswordFields from './NewPasswordFields.vue';
import { useNewPassword } from './password.ts';
import { useSending } from './sending.ts';
import { useSession } from './store.ts';

const session = useSession();
const router = useRouter();
const token = useRoute().hash.slice(1);
const name = ref('');
const email = ref('');
const workspace = ref('');
const { password, repeated, errors, ready } = useNewPassword();
const { error, busy, submit } = useSending(async () => {
  await session.beginFirst({
    token,
    name: name.value,
    email: email.value,
    password: password.value,
    workspace: workspace.value,
  });
  await router.push('/sources');
});
/** Whether it makes no account: told before anyone has filled in a form for nothing. */
const spent = ref(!token);
if (!token) error.value = 'The address is incomplete: it must include the part after # shown in the terminal.';
else
  ask(routes.access.firstLink, { body: { token } }).catch((e: Error) => {
    error.value = e.message;
    spent.value = e instanceof ApiError && e.status === 403;
  });
</script>

<template>
  <EntryCard
    :says="spent ? 'No account was made.' : 'The first account here. It is yours, and may do everything.'"
    :does="spent ? 'To the sign-in' : 'Begin'"
    doing="Beginning…"
    :busy
    :error
    :waits="!ready && !spent"
    @submit="spent ? router.push('/sign-in') : submit()"
  >
    <template v-if="!spent">
      <KitField
        v-model="name"
        class="mb-3"
        label="Your name"
        above
        autocomplete="name"
        maxlength="120"
        required
        autofocus
      />
      <KitField
        v-model="email"
        class="mb-3"
        label="E-mail address"
        above
        type="email"
        autocomplete="username"
        required
      />
      <KitField
        v-model="workspace"
        class="mb-3"
        label="Name of the workspace"
        above
        maxlength="120"
        required
        hint="What you work on. More can follow."
      />
      <NewPasswordFields v-model:password="password" v-model:repeated="repeated" :errors />
    </template>
  </EntryCard>
</template>
