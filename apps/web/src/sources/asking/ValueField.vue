<script setup lang="ts">
/** The value of a condition: written, or taken from what there is. */
import { refDebounced } from '@vueuse/core';
import { computed, ref, useTemplateRef } from 'vue';
import { routes } from '@pandecta/contract';
import { fieldOf, valuesOf, type Row } from '@pandecta/core/query';
import { ask } from '../../api/client.ts';
import { useAsked } from '../../data/asked.ts';
import { useBeside } from '../../kit/floating.ts';
import KitField from '../../kit/KitField.vue';
import KitSelect from '../../kit/KitSelect.vue';
import OfferList from '../../kit/OfferList.vue';
import { useOffers } from '../../kit/offers.ts';

const props = defineProps<{ field: Row['field']; error: string | undefined }>();
const text = defineModel<string>({ required: true });
const focused = ref(false);
const at = useBeside(useTemplateRef<HTMLElement>('box'), useTemplateRef<HTMLElement>('list'));

const asks = computed(() => (props.field === 'words' ? undefined : fieldOf(props.field).asks));
const choices = computed(() => {
  const values = props.field === 'words' ? undefined : valuesOf(props.field);
  return (
    values && [{ value: '', name: 'Choose…' }, ...Object.entries(values).map(([value, name]) => ({ value, name }))]
  );
});
const hint = computed(() => {
  const a = asks.value;
  if (a && 'range' in a && !text.value) return a.says.replace(/^.*? are written /, 'as ');
  return undefined;
});
const begun = refDebounced(text, 80);
const { data: offered } = useAsked({
  question: () =>
    focused.value && props.field !== 'words' && !choices.value ? { field: props.field, begins: begun.value } : null,
  fetch: async (query, signal) => (await ask(routes.search.suggest, { query, signal })).values,
  concerns: () => false,
});
const shown = computed(() =>
  (offered.value ?? [])
    .filter((v) => v.value !== text.value)
    .map(({ value, count }) => ({ key: value, name: value, ...(count !== undefined && { count }) })),
);
const take = ({ key }: { key: string }): void => void (text.value = key);
const { id: offersId, active, attributes, key } = useOffers(shown, take);
</script>

<template>
  <KitSelect v-if="choices" v-model="text" label="Value" :options="choices" />
  <div v-else ref="box">
    <KitField
      v-model="text"
      label="Value"
      spellcheck="false"
      v-bind="attributes"
      :placeholder="hint"
      :error="error"
      @keydown="key"
      @focus="focused = true"
      @blur="focused = false"
    />
    <div
      v-if="focused && shown.length"
      ref="list"
      class="z-40 w-72 overflow-auto rounded-md border border-line bg-card py-1 shadow-lg"
      :style="at"
    >
      <OfferList :id="offersId" v-model:active="active" label="What there is" :entries="shown" @take="take" />
    </div>
  </div>
</template>
