<script setup lang="ts">
/** One condition: a field, how it is meant, and its value. */
import { X } from '@lucide/vue';
import { computed } from 'vue';
import { FIELD_GROUPS, fieldOf, mistakeIn, QUERY_FIELDS, type QueryField, type Row } from '@pandecta/core/query';
import KitButton from '../../kit/KitButton.vue';
import KitSelect from '../../kit/KitSelect.vue';
import { useLately, usedNow } from './lately.ts';
import ValueField from './ValueField.vue';

const emit = defineEmits<{ remove: [] }>();
const row = defineModel<Row>({ required: true });
const lately = useLately();

const fields = [
  { value: 'words' as const, name: 'Words, anywhere' },
  ...FIELD_GROUPS.flatMap((under) =>
    QUERY_FIELDS.filter((f) => fieldOf(f).under === under).map((f) => ({
      value: f,
      name: fieldOf(f).name,
      under,
    })),
  ),
];

type How = 'has' | 'is' | 'not' | 'not phrase';
const asksOf = (field: Row['field']) => (field === 'words' ? undefined : fieldOf(field).asks);
/** How a field can be meant: words have each of them or a phrase, names are just that or begin so. */
const hows = computed<{ value: How; name: string }[]>(() => {
  const asks = asksOf(row.value.field);
  if (!asks)
    return [
      { value: 'has', name: 'are in it' },
      { value: 'not', name: 'are not in it' },
    ];
  if ('words' in asks)
    return [
      { value: 'has', name: 'has the words' },
      { value: 'is', name: 'has the phrase' },
      { value: 'not', name: 'has not the words' },
      { value: 'not phrase', name: 'has not the phrase' },
    ];
  if ('range' in asks || 'values' in asks)
    return [
      { value: 'has', name: 'is' },
      { value: 'not', name: 'is not' },
    ];
  if ('identifier' in asks)
    return [
      { value: 'has', name: 'begins with' },
      { value: 'not', name: 'does not begin with' },
    ];
  return [
    { value: 'is', name: 'is' },
    { value: 'has', name: 'begins with' },
    { value: 'not phrase', name: 'is not' },
    { value: 'not', name: 'does not begin with' },
  ];
});
const how = computed<How>({
  get: () => (row.value.not ? (row.value.exactly ? 'not phrase' : 'not') : row.value.exactly ? 'is' : 'has'),
  set: (now) =>
    (row.value = { ...row.value, not: now.startsWith('not'), exactly: now === 'is' || now === 'not phrase' }),
});
const field = computed<Row['field']>({
  get: () => row.value.field,
  set(now) {
    const asks = asksOf(now);
    const named = Boolean(asks && 'facet' in asks && !('values' in asks));
    row.value = { ...row.value, field: now, text: '', exactly: named };
    if (now !== 'words') lately.value = usedNow(lately.value, now);
  },
});
const value = computed({
  get: () => row.value.text,
  set: (text) => (row.value = { ...row.value, text }),
});
const error = computed(() =>
  row.value.field === 'words' || !row.value.text.trim()
    ? undefined
    : mistakeIn(row.value.field as QueryField, row.value.text),
);
</script>

<template>
  <div class="flex flex-wrap items-start gap-2">
    <KitSelect v-model="field" class="w-44" label="Field" :options="fields" />
    <KitSelect v-model="how" class="w-40" label="How it is meant" :options="hows" />
    <ValueField v-model="value" class="w-72" :field="row.field" :error="error" />
    <KitButton look="icon" class="mt-0.5" name="Remove this condition" @click="emit('remove')"
      ><X :size="14"
    /></KitButton>
  </div>
</template>
