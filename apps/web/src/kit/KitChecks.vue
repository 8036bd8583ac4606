<script setup lang="ts">
/** Several of some things, each checked or not; what is written inside stands below them. */
import KitCheck from './KitCheck.vue';

defineProps<{ legend: string; options: readonly { value: string; name: string }[] }>();
const chosen = defineModel<string[]>({ required: true });
function toggle(value: string): void {
  chosen.value = chosen.value.includes(value) ? chosen.value.filter((c) => c !== value) : [...chosen.value, value];
}
</script>

<template>
  <fieldset class="grid gap-1.5">
    <legend class="heading mb-1.5">{{ legend }}</legend>
    <p v-for="o in options" :key="o.value" class="flex items-center gap-2">
      <KitCheck :checked="chosen.includes(o.value)" :label="o.name" @check="toggle(o.value)" /><span
        aria-hidden="true"
        >{{ o.name }}</span
      >
    </p>
    <slot />
  </fieldset>
</template>
