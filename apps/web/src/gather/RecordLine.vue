<script setup lang="ts">
/** A record in a line of a list: what it is, who and where, and at its end what is said of it. */
import type { SourceRecord } from '@pandecta/core/source';
import CheckMark from '../kit/CheckMark.vue';
import ListRow from '../kit/ListRow.vue';
import StampMark from '../kit/StampMark.vue';

defineProps<{
  kind: SourceRecord['type'];
  title: string;
  below: string;
  /** Set in a lighter hand: one has it already. */
  known?: boolean;
  checked: boolean;
  current: boolean;
}>();
const emit = defineEmits<{ check: [] }>();
</script>

<template>
  <ListRow :on="current || checked" class="py-1">
    <div class="grid h-full grid-cols-[16px_26px_minmax(0,1fr)_auto] gap-x-[11px]">
      <CheckMark class="mt-[3px]" :checked="checked" @check="emit('check')" />
      <StampMark :kind="kind" />
      <div class="min-w-0">
        <p class="line-clamp-1 font-serif text-read leading-[1.28]" :class="known ? 'font-normal' : 'font-medium'">
          {{ title }}
        </p>
        <p class="truncate text-fine text-muted">{{ below }}</p>
      </div>
      <div class="max-w-56 text-right text-fine leading-[1.3]"><slot /></div>
    </div>
  </ListRow>
</template>
