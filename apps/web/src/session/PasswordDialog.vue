<script setup lang="ts">
/** Changing one's own password. */
import { ref, watch } from 'vue';
import { routes } from '@pandecta/contract';
import { ask } from '../api/client.ts';
import KitButton from '../kit/KitButton.vue';
import KitDialog from '../kit/KitDialog.vue';
import KitField from '../kit/KitField.vue';
import KitNotice from '../kit/KitNotice.vue';
import NewPasswordFields from './NewPasswordFields.vue';
import { useNewPassword } from './password.ts';
import { useSending } from './sending.ts';

const open = defineModel<boolean>('open', { required: true });
const emit = defineEmits<{ changed: [] }>();
const old = ref('');
const { password, repeated, errors, ready, clear } = useNewPassword();
const { error, busy, submit } = useSending(async () => {
  await ask(routes.access.changePassword, { body: { old: old.value, password: password.value } });
  open.value = false;
  emit('changed');
});
watch(open, () => {
  old.value = error.value = '';
  clear();
});
</script>

<template>
  <KitDialog v-model:open="open" title="Change your password">
    <form class="px-4 pb-4 pt-3" @submit.prevent="submit">
      <KitField
        v-model="old"
        class="mb-3"
        label="Present password"
        above
        type="password"
        autocomplete="current-password"
        required
      />
      <NewPasswordFields v-model:password="password" v-model:repeated="repeated" :errors />
      <p class="mb-4 text-muted">
        You will be signed out everywhere else. Browser keys stay valid; revoke them under Gather.
      </p>
      <KitNotice v-if="error" tone="bad" boxed class="mb-4">{{ error }}</KitNotice>
      <div class="flex justify-end gap-2">
        <KitButton @click="open = false">Leave it</KitButton>
        <KitButton look="main" type="submit" :disabled="busy || !ready || !old">{{
          busy ? 'Changing…' : 'Change the password'
        }}</KitButton>
      </div>
    </form>
  </KitDialog>
</template>
