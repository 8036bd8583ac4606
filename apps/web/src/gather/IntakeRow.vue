<script setup lang="ts">
import { computed } from 'vue';
import type { IntakeRow } from '@pandecta/contract';
import { whenOf, whereOf, whoOf, withoutMarkup } from '@pandecta/core/source';
import CheckMark from '../kit/CheckMark.vue';
import ListRow from '../kit/ListRow.vue';
import StampMark from '../kit/StampMark.vue';
import { standingOf, TONES } from './standing.ts';

const props = defineProps<{ row: IntakeRow; checked: boolean; current: boolean }>();
const emit = defineEmits<{ check: [] }>();
const record = computed(() => props.row.record);
const title = computed(() => {
  const t = withoutMarkup(record.value.title ?? record.value['title-short'] ?? '');
  if (props.row.unread) return `“${t}”`;
  return t || record.value.DOI || record.value.ISBN || record.value.URL || 'Untitled';
});
const below = computed(() =>
  props.row.unread
    ? 'could not be read as a reference'
    : [whoOf(record.value), whereOf(record.value), whenOf(record.value)].filter(Boolean).join(' · '),
);
const standing = computed(() => standingOf(props.row));
</script>

<template>
  <ListRow :on="current || checked" class="py-1">
    <div class="grid h-full grid-cols-[16px_26px_minmax(0,1fr)_auto] gap-x-[11px]">
      <CheckMark class="mt-[3px]" :checked="checked" @check="emit('check')" />
      <StampMark :kind="record.type" />
      <div class="min-w-0">
        <p class="line-clamp-1 font-serif text-read font-medium leading-[1.28]">{{ title }}</p>
        <p class="truncate text-fine text-muted">{{ below }}</p>
      </div>
      <p class="max-w-56 text-right text-fine leading-[1.3]" :class="TONES[standing.tone]">{{ standing.says }}</p>
    </div>
  </ListRow>
</template>
