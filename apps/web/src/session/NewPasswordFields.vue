<script setup lang="ts">
/** A new password, twice. */
import { LEAST_PASSWORD } from '@pandecta/contract';
import KitField from '../kit/KitField.vue';

defineProps<{ trouble: { password: string; again: string } }>();
const password = defineModel<string>('password', { required: true });
const again = defineModel<string>('again', { required: true });
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
    :trouble="trouble.password"
    :hint="`At least ${LEAST_PASSWORD} characters; a few words do well.`"
  />
  <KitField
    v-model="again"
    class="mb-4"
    label="The same again"
    above
    type="password"
    autocomplete="new-password"
    required
    :trouble="trouble.again"
  />
</template>
