<script setup lang="ts">
/** Asks for the password of a locked file. */
import { ref } from 'vue';
import KitButton from '../kit/KitButton.vue';
import KitCheck from '../kit/KitCheck.vue';
import KitField from '../kit/KitField.vue';
import KitNotice from '../kit/KitNotice.vue';

defineProps<{ isWrong: boolean }>();
const emit = defineEmits<{ open: [password: string, keep: boolean] }>();
const password = ref('');
const keeps = ref(true);
</script>

<template>
  <div class="grid flex-1 place-items-center">
    <form class="flex w-80 flex-col gap-3" @submit.prevent="password && emit('open', password, keeps)">
      <h2 class="font-serif text-read font-medium">This file is locked</h2>
      <KitNotice v-if="isWrong" tone="bad">That is not its password.</KitNotice>
      <KitField v-model="password" type="password" label="Password of the file" placeholder="Password of the file" />
      <label class="flex items-center gap-2"
        ><KitCheck :checked="keeps" label="Remember it for me" @check="keeps = !keeps" />Remember it for me</label
      >
      <KitButton look="main" type="submit" :disabled="!password">Open</KitButton>
      <p class="text-fine text-muted">
        It is kept encrypted, for you alone. The words of a locked file are not searched with others.
      </p>
    </form>
  </div>
</template>
