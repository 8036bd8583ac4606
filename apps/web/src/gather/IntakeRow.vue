<script setup lang="ts">
import { computed } from 'vue';
import type { IntakeRow } from '@pandecta/contract';
import { belowOf, withoutMarkup } from '@pandecta/core/source';
import RecordLine from './RecordLine.vue';
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
  props.row.unread ? (props.row.trouble ?? 'could not be read as a reference') : belowOf(record.value),
);
const standing = computed(() => standingOf(props.row));
</script>

<template>
  <RecordLine
    :kind="record.type"
    :title="title"
    :below="below"
    :checked="checked"
    :current="current"
    @check="emit('check')"
    ><p :class="TONES[standing.tone]">{{ standing.says }}</p></RecordLine
  >
</template>
