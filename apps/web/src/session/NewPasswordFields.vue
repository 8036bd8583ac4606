<script setup lang="ts">
/** A new password, twice. */
import { LEAST_PASSWORD } from '@pandecta/contract';
import KitField from '../kit/KitField.vue';

defineProps<{ errors: { password: string; repeated: string } }>();
const password = defineModel<string>('password', { required: true });
const repeated = defineModel<string>('repeated', { required: true });
</script>

<template>
  <KitField
    v-model="password"
    class="mb-3"
    label="New password"
    above
    type="password"
    autocomplete="new-password"
    required
    :error="errors.password"
    :hint="`At least ${LEAST_PASSWORD} characters; a few words do well.`"
  />
  <KitField
    v-model="repeated"
    class="mb-4"
    label="The same again"
    above
    type="password"
    autocomplete="new-password"
    required
    :error="errors.repeated"
  />
</template>
