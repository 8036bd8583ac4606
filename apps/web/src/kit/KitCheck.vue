<script setup lang="ts">
/** On, off, or in part. What it is called is told to those who do not see where it stands. */
defineProps<{ checked: boolean; some?: boolean; label: string; disabled?: boolean }>();
const emit = defineEmits<{ check: [] }>();
</script>

<template>
  <input
    type="checkbox"
    class="h-3.5 w-3.5 accent-verdigris"
    :checked="checked"
    :indeterminate="some"
    :disabled="disabled"
    :aria-label="label"
    @change="emit('check')"
  />
</template>
