<script setup lang="ts">
/** The edge of a pane: dragged with the pointer or moved with the arrow keys. */
const props = defineProps<{
  modelValue: number;
  min: number;
  max: number;
  side: 'left' | 'right' | 'top';
  label: string;
}>();
const emit = defineEmits<{ 'update:modelValue': [number] }>();

const clamp = (n: number): number => Math.max(props.min, Math.min(props.max, Math.round(n)));
const sign = (): number => (props.side === 'left' ? 1 : -1);

function drag(event: PointerEvent): void {
  const start = props.side === 'top' ? event.clientY : event.clientX;
  const from = props.modelValue;
  const move = (e: PointerEvent): void =>
    emit('update:modelValue', clamp(from + sign() * ((props.side === 'top' ? e.clientY : e.clientX) - start)));
  const up = (): void => {
    removeEventListener('pointermove', move);
    removeEventListener('pointerup', up);
  };
  addEventListener('pointermove', move);
  addEventListener('pointerup', up);
  event.preventDefault();
}

function key(event: KeyboardEvent): void {
  const step = { ArrowLeft: -16, ArrowUp: -16, ArrowRight: 16, ArrowDown: 16 }[event.key];
  if (!step) return;
  emit('update:modelValue', clamp(props.modelValue + sign() * step));
  event.preventDefault();
  event.stopPropagation();
}
</script>

<template>
  <div
    role="separator"
    tabindex="0"
    :aria-label="label"
    :aria-orientation="side === 'top' ? 'horizontal' : 'vertical'"
    :aria-valuenow="modelValue"
    :aria-valuemin="min"
    :aria-valuemax="max"
    class="relative z-10 shrink-0 hover:bg-verdigris focus-visible:bg-verdigris"
    :class="
      side === 'top'
        ? 'h-[3px] cursor-row-resize bg-ink'
        : 'w-px cursor-col-resize bg-line after:absolute after:inset-y-0 after:-left-1 after:w-2.5'
    "
    @pointerdown="drag"
    @keydown="key"
  />
</template>
