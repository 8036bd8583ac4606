<script setup lang="ts">
/** A citation with a page: where in each source, words around it, how the author is named; copied as it will stand. */
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';
import { routes, type Chosen } from '@pandecta/contract';
import { AUTHOR_FORMS, LOCATOR_KINDS, LOCATORS, withoutMarkup, type CiteItem } from '@pandecta/core/source';
import { ask } from '../api/client.ts';
import { useAsked } from '../data/asked.ts';
import KitButton from '../kit/KitButton.vue';
import KitDialog from '../kit/KitDialog.vue';
import KitField from '../kit/KitField.vue';
import KitNotice from '../kit/KitNotice.vue';
import KitSelect from '../kit/KitSelect.vue';
import StyleChooser from '../citing/StyleChooser.vue';
import { MOST_IN_ONE, useCiting } from '../citing/store.ts';

const props = defineProps<{ chosen: Chosen; count: number }>();
const open = defineModel<boolean>('open', { required: true });
const citing = useCiting();
const kinds = LOCATOR_KINDS.map((value) => ({ value, name: LOCATORS[value] }));
const AUTHORS = {
  'as usual': 'Author as usual',
  suppressed: 'Without the author',
  'in the text': 'Author in the text',
};
const authors = AUTHOR_FORMS.map((value) => ({ value, name: AUTHORS[value] }));

const { data: sources, error } = useAsked({
  question: () => (open.value && props.count <= MOST_IN_ONE ? props.chosen : null),
  fetch: async (body, signal) => {
    const { ids = [] } =
      'ids' in body
        ? body
        : await ask(routes.search.ids, { query: { ...body.matching, from: 0, count: MOST_IN_ONE }, signal });
    return Promise.all(ids.map((source) => ask(routes.sources.one, { source, signal })));
  },
  concerns: () => false,
});
const items = ref<Record<string, Required<CiteItem>>>({});
const places = useTemplateRef<InstanceType<typeof KitField>[]>('places');
watch(sources, async (list) => {
  const isNew = !Object.keys(items.value).length;
  items.value = Object.fromEntries(
    (list ?? []).map(({ id }) => [
      id,
      items.value[id] ?? { id, locator: '', label: 'page', before: '', after: '', author: 'as usual' },
    ]),
  );
  await nextTick();
  if (isNew) places.value?.[0]?.focus();
});
watch(open, (now) => now || (items.value = {}));
const said = computed<CiteItem[]>(() =>
  (sources.value ?? []).flatMap(({ id }) => {
    const one = items.value[id];
    if (!one) return [];
    const { locator, before, after, label, author } = one;
    return [{ id, label, author, ...(locator && { locator }), ...(before && { before }), ...(after && { after }) }];
  }),
);
const { data: preview } = useAsked({
  question: () =>
    sources.value?.length
      ? { style: citing.style.id, locale: citing.locale, ids: sources.value.map((s) => s.id), items: said.value }
      : null,
  fetch: ({ ids, items: of }, signal) => citing.cite({ ids }, true, signal, of),
  concerns: () => false,
});

async function copy(): Promise<void> {
  open.value = false;
  await citing.copyCited({ ids: (sources.value ?? []).map((s) => s.id) }, 'citation', said.value);
}
</script>

<template>
  <KitDialog v-model:open="open" title="Cite with a page">
    <form class="flex max-h-[70vh] flex-col gap-3 overflow-auto px-4 pb-4 pt-2" @submit.prevent="copy">
      <KitNotice v-if="count > MOST_IN_ONE" tone="bad"
        >At most {{ MOST_IN_ONE }} sources stand in one citation; {{ count }} are chosen.</KitNotice
      >
      <KitNotice v-else-if="error" tone="bad">{{ error }}</KitNotice>
      <fieldset v-for="s in sources ?? []" :key="s.id" class="border-b border-line pb-3">
        <legend class="mb-1 font-serif">{{ withoutMarkup(s.record.title ?? 'Untitled') }}</legend>
        <div v-if="items[s.id]" class="grid grid-cols-[8.5rem_minmax(0,1fr)_11rem] gap-2">
          <KitSelect v-model="items[s.id]!.label" label="What the place is" :options="kinds" />
          <KitField ref="places" v-model="items[s.id]!.locator" label="Where in it" placeholder="12, 12–14, 33" />
          <KitSelect v-model="items[s.id]!.author" label="How the author is named" :options="authors" />
          <KitField v-model="items[s.id]!.before" label="Words before" placeholder="Before: see" />
          <KitField
            v-model="items[s.id]!.after"
            class="col-span-2"
            label="Words after"
            placeholder="After: with a map"
          />
        </div>
      </fieldset>
      <p class="min-h-6 font-serif text-read" data-testid="cited" aria-live="polite">
        <!-- eslint-disable-next-line vue/no-v-html -- made by the citation processor, which escapes what comes from records -->
        <span v-if="preview?.citationHtml" v-html="preview.citationHtml" /><span
          v-else-if="preview"
          class="font-sans text-body text-muted"
          >{{ citing.unprintedWords(preview) }}.</span
        >
      </p>
      <div class="flex items-center gap-2">
        <KitButton type="submit" look="main" :disabled="!preview?.citationHtml">Copy citation</KitButton>
        <span class="min-w-0 flex-1 truncate text-fine text-muted">{{ citing.style.title }}</span><StyleChooser />
      </div>
    </form>
  </KitDialog>
</template>
