<script setup lang="ts">
import KitDialog from '../kit/KitDialog.vue';
import { keysByPlace } from '../act/commands.ts';

const open = defineModel<boolean>('open', { required: true });
</script>

<template>
  <KitDialog v-model:open="open" title="Keys" at="side">
    <section v-for="group in keysByPlace()" :key="group.where" class="mt-5">
      <h3 class="heading mb-1">{{ group.where }}</h3>
      <dl class="grid grid-cols-[8.5rem_1fr] gap-y-1">
        <template v-for="k in group.keys" :key="k.keys">
          <dt class="font-mono text-fine">{{ k.keys }}</dt>
          <dd>{{ k.does }}</dd>
        </template>
      </dl>
    </section>
  </KitDialog>
</template>
