<script setup lang="ts">
/** What is said of a collection: its name, what it is for, until when, and the rule by which sources belong to it. */
import { computed, ref, watch } from 'vue';
import type { Ask, EditCollection } from '@pandecta/contract';
import KitButton from '../../kit/KitButton.vue';
import KitCheck from '../../kit/KitCheck.vue';
import KitDialog from '../../kit/KitDialog.vue';
import KitField from '../../kit/KitField.vue';
import KitSelect from '../../kit/KitSelect.vue';
import { usePlaces } from '../../places/store.ts';
import { useCollectionDeeds } from './deeds.ts';
import { useWords } from '../asking/words.ts';
import { useVocabulary } from '../vocabulary/store.ts';
import { useAsk } from '../ask.ts';

const deeds = useCollectionDeeds();
const places = usePlaces();
const ask = useAsk();
const wordsOf = useWords();
const open = ref(false);
const draft = ref({ name: '', says: '', day: '', what: '', rule: '', allows: '', mine: false });
/** As it stood when one began. */
let seen: typeof draft.value;

watch(
  () => deeds.describing,
  (branch) => {
    open.value = Boolean(branch);
    if (!branch) return;
    const { name, says, until, rule: has, allows, mine } = branch.collection;
    const end = { day: until?.day ?? '', what: until?.what ?? '' };
    draft.value = { name, says, ...end, rule: has ? wordsOf(has) : '', allows: allows ?? '', mine };
    seen = { ...draft.value };
  },
);
watch(open, (now) => !now && (deeds.describing = null));

const { data: vocabulary } = useVocabulary(() => open.value);
const headings = computed(() => [
  { value: '', name: 'Any tags' },
  ...[...new Set([...(vocabulary.value?.terms ?? []).flatMap((t) => (t.subject ? [] : t.heading)), draft.value.allows])]
    .filter(Boolean)
    .map((value) => ({ value, name: `Only those of “${value}”` })),
]);

/** The question one asks now, as words. */
const asked = (): string => wordsOf(ask.body as Ask);

async function save(): Promise<void> {
  const { id } = deeds.describing!.collection;
  const { name, says, day, what, allows, mine } = draft.value;
  const words = draft.value.rule.trim();
  const body: EditCollection = {
    ...(name !== seen.name && { name, seen: seen.name }),
    ...(says !== seen.says && { says }),
    ...((day !== seen.day || what !== seen.what) && { until: day ? { day, what: what.trim() } : null }),
    ...(words !== seen.rule && { rule: words ? { q: words } : null }),
    ...(allows !== seen.allows && { allows: allows || null }),
    ...(mine !== seen.mine && { mine }),
  };
  if (!Object.keys(body).length || (await places.edit(id, body))) open.value = false;
}
</script>

<template>
  <KitDialog v-model:open="open" :title="draft.name || 'Collection'" at="side">
    <form class="mt-4 flex flex-col gap-4" @submit.prevent="save">
      <KitField v-model="draft.name" above label="Name" maxlength="200" />
      <KitField
        v-model="draft.says"
        above
        label="What it is for"
        :lines="4"
        maxlength="4000"
        hint="Shown when you point at its name."
      />
      <div class="flex items-start gap-2">
        <KitField v-model="draft.day" above class="w-40 shrink-0" label="Needed until" type="date" />
        <KitField v-model="draft.what" above class="min-w-0 flex-1" label="When there is" placeholder="the hearing" />
      </div>
      <div>
        <KitField
          v-model="draft.rule"
          above
          label="Rule"
          :lines="3"
          spellcheck="false"
          placeholder="subject:saltmarsh year:2010-2026"
          hint="A question as you would type it in the ask line. What it finds belongs to the collection for as long as it matches, in addition to what is filed by hand."
        />
        <KitButton v-if="ask.isNarrowed" look="word" class="mt-1" @click="draft.rule = asked()"
          >Use the current question</KitButton
        >
      </div>
      <KitSelect v-model="draft.allows" above label="Tags its sources may get" :options="headings" />
      <label class="flex items-baseline gap-2"
        ><KitCheck
          class="translate-y-0.5"
          :checked="draft.mine"
          label="Seen by you alone"
          @check="draft.mine = !draft.mine"
        /><span
          >Seen by you alone<span class="block text-fine text-muted"
            >Then nobody else sees it in lists, counts, searches or the history.</span
          ></span
        ></label
      >
      <div class="flex justify-end gap-2">
        <KitButton @click="open = false">Leave it</KitButton>
        <KitButton look="main" type="submit" :disabled="!draft.name.trim()">Save</KitButton>
      </div>
    </form>
  </KitDialog>
</template>
