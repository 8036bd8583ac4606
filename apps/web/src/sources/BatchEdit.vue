<script setup lang="ts">
/** One field of the chosen sources altered in one way, seen before it is done: set, taken away, written on, replaced. */
import { refDebounced } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import { MOST_ALTERED, routes, type AlterField, type Chosen } from '@pandecta/contract';
import { countSources } from '@pandecta/core/changes';
import {
  isDateVariable,
  isNameVariable,
  isTextVariable,
  NAME_VARIABLES,
  DATE_VARIABLES,
  TEXT_VARIABLES,
  variableLabel,
  type Kind,
  type Variable,
} from '@pandecta/core/source';
import { formatNumber } from '@pandecta/core/wording';
import { useChanges } from '../act/changes.ts';
import { ask } from '../api/client.ts';
import { useAsked } from '../data/asked.ts';
import { concerns } from '../data/live.ts';
import KitButton from '../kit/KitButton.vue';
import KitCheck from '../kit/KitCheck.vue';
import KitDialog from '../kit/KitDialog.vue';
import KitField from '../kit/KitField.vue';
import KitNotice from '../kit/KitNotice.vue';
import KitSelect from '../kit/KitSelect.vue';
import BeforeAfter from './BeforeAfter.vue';
import { hintOf, textToField } from './fields.ts';
import { KIND_CHOICES } from './values.ts';

type Way = AlterField['way'];

const props = defineProps<{ chosen: Chosen; count: number }>();
const open = defineModel<boolean>('open', { required: true });
const { change } = useChanges();
const field = ref<string>('language');
const way = ref<Way>('set');
const text = ref('');
const kind = ref<Kind>('article-journal');
const find = ref('');
const expression = ref(false);
const exactCase = ref(false);
const onlyEmpty = ref(false);

const COMMON = ['type', 'language', 'publisher', 'publisher-place', 'container-title', 'archive', 'archive_location', 'authority', 'jurisdiction', 'title', 'note'] as const; // prettier-ignore
const fields = [
  ...COMMON.map((value) => ({ value: value as string, name: variableLabel(value), under: 'Often altered' })),
  ...[...TEXT_VARIABLES, ...NAME_VARIABLES, ...DATE_VARIABLES]
    .filter((v) => !(COMMON as readonly string[]).includes(v))
    .map((value) => ({ value: value as string, name: variableLabel(value), under: 'All fields' }))
    .sort((a, b) => a.name.localeCompare(b.name, 'en')),
];
const WAY_NAMES: Record<Way, string> = {
  set: 'Set to',
  append: 'Add after the value',
  prepend: 'Add before the value',
  replace: 'Find and replace',
  clear: 'Take away',
};
const ways = computed(() =>
  (Object.keys(WAY_NAMES) as Way[])
    .filter((w) => {
      if (field.value === 'type') return w === 'set';
      if (w === 'replace') return isTextVariable(field.value);
      return w === 'set' || w === 'clear' || !isDateVariable(field.value);
    })
    .map((value) => ({ value, name: WAY_NAMES[value] })),
);
watch(ways, (all) => all.some((w) => w.value === way.value) || (way.value = 'set'));

/** What is asked of the server; null as long as something is missing. */
const wanted = computed<Omit<AlterField, keyof Chosen> | null>(() => {
  const of = { field: field.value, way: way.value };
  if (way.value === 'clear') return of;
  if (way.value === 'replace')
    return find.value
      ? { ...of, find: find.value, value: text.value, expression: expression.value, exactCase: exactCase.value }
      : null;
  // What is written before or behind keeps its spaces.
  const written = way.value !== 'set' && isTextVariable(field.value);
  const value =
    field.value === 'type' ? kind.value : written ? text.value : textToField(field.value as Variable, text.value);
  return value ? { ...of, value: value as never, ...(way.value === 'set' && { onlyEmpty: onlyEmpty.value }) } : null;
});
const tooMany = computed(() => props.count > MOST_ALTERED);
const question = computed(() =>
  open.value && wanted.value && !tooMany.value ? { ...props.chosen, ...wanted.value } : null,
);
const settled = refDebounced(question, 250);
const {
  data: preview,
  error,
  isLoading,
} = useAsked({
  question: () => settled.value,
  fetch: (body, signal) => (body ? ask(routes.altering.preview, { body, signal }) : Promise.resolve(null)),
  concerns: (touched) => concerns(touched, ['source']),
});
watch(open, (now) => now && ((text.value = ''), (find.value = '')));

async function alter(): Promise<void> {
  const body = { ...props.chosen, ...wanted.value! };
  if (await change(() => ask(routes.altering.alter, { body }))) open.value = false;
}
</script>

<template>
  <KitDialog v-model:open="open" :title="`A field of ${countSources(count)}`">
    <form class="px-4 pb-4 pt-2" @submit.prevent="preview?.altered && alter()">
      <div class="grid grid-cols-2 gap-2">
        <KitSelect v-model="field" above label="Field" :options="fields" />
        <KitSelect v-model="way" above label="What is done" :options="ways" />
      </div>
      <div v-if="way === 'replace'" class="mt-2 grid grid-cols-2 gap-2">
        <KitField v-model="find" above :label="expression ? 'Regular expression' : 'Text'" spellcheck="false" />
        <KitField
          v-model="text"
          above
          label="Put in its place"
          spellcheck="false"
          :hint="expression ? '$1 is what the first brackets hold' : 'Nothing: the text is removed'"
        />
        <label class="flex items-baseline gap-2"
          ><KitCheck
            class="translate-y-0.5"
            :checked="expression"
            label="A regular expression"
            @check="expression = !expression"
          />A regular expression</label
        >
        <label class="flex items-baseline gap-2"
          ><KitCheck
            class="translate-y-0.5"
            :checked="exactCase"
            label="Match case"
            @check="exactCase = !exactCase"
          />Match case</label
        >
      </div>
      <div v-else-if="way !== 'clear'" class="mt-2">
        <KitSelect v-if="field === 'type'" v-model="kind" above label="Kind" :options="KIND_CHOICES" />
        <KitField
          v-else
          v-model="text"
          above
          label="Value"
          :lines="isNameVariable(field) || field === 'note' || field === 'abstract' ? 3 : 0"
          :hint="hintOf(field as Variable)"
        />
        <label v-if="way === 'set' && field !== 'type'" class="mt-1.5 flex items-baseline gap-2"
          ><KitCheck
            class="translate-y-0.5"
            :checked="onlyEmpty"
            label="Only where it is empty"
            @check="onlyEmpty = !onlyEmpty"
          />Only where it is empty</label
        >
      </div>
      <KitNotice v-if="tooMany" tone="bad" class="mt-3"
        >At most {{ formatNumber(MOST_ALTERED) }} sources are altered at once; narrow what is selected.</KitNotice
      >
      <KitNotice v-else-if="error" tone="bad" class="mt-3">{{ error }}</KitNotice>
      <p v-else-if="!wanted" class="mt-3 text-muted">Changes are previewed here before they are made.</p>
      <p v-else-if="!preview" class="mt-3 text-muted" role="status">Reading the records…</p>
      <template v-else>
        <h3 class="heading mt-3" role="status">
          {{ preview.altered ? `${countSources(preview.altered)} would change` : 'None would change'
          }}<template v-if="preview.same">, {{ formatNumber(preview.same) }} stay as they are</template>
        </h3>
        <ul
          class="mt-1 max-h-64 divide-y divide-line overflow-auto"
          tabindex="0"
          aria-label="What would change"
          :aria-busy="isLoading"
        >
          <li v-for="c in preview.first" :key="c.source" class="py-1.5">
            <p v-if="field !== 'title'" class="truncate text-fine text-muted">{{ c.title }}</p>
            <BeforeAfter :finding="{ before: { [field]: c.before }, mend: { [field]: c.after } }" />
          </li>
        </ul>
        <p v-if="preview.altered > preview.first.length" class="mt-1 text-fine text-muted">
          and {{ countSources(preview.altered - preview.first.length) }} more
        </p>
      </template>
      <p class="mt-3 flex justify-end gap-1.5">
        <KitButton @click="open = false">Cancel</KitButton
        ><KitButton look="main" type="submit" :disabled="!preview?.altered || !wanted">Change them</KitButton>
      </p>
    </form>
  </KitDialog>
</template>
