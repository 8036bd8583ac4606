<script setup lang="ts">
/** The workspace's vocabulary on a page of its own: its tags, and the subject terms that came with records. */
import { computed, reactive, ref, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { VOCABULARY_FORMATS, type VocabularyFormat, type VocabularyTerm } from '@pandecta/contract';
import { countSources } from '@pandecta/core/changes';
import { counted, formatNumber } from '@pandecta/core/wording';
import EmptyState from '../../kit/EmptyState.vue';
import KitButton from '../../kit/KitButton.vue';
import KitCheck from '../../kit/KitCheck.vue';
import KitField from '../../kit/KitField.vue';
import KitFile from '../../kit/KitFile.vue';
import KitMenu from '../../kit/KitMenu.vue';
import KitNotice from '../../kit/KitNotice.vue';
import { useSession } from '../../session/store.ts';
import { useTerms, useVocabulary } from './store.ts';
import TermSheet from './TermSheet.vue';
import TermsToTags from './TermsToTags.vue';
import { rootOf, standing } from './tree.ts';

const route = useRoute();
const router = useRouter();
const session = useSession();
const { data: reply, error } = useVocabulary();
const terms = useTerms();
const typed = ref('');
const chosen = reactive(new Set<string>());
const editing = ref<VocabularyTerm | null>(null);
/** Of very many the first; others are found by typing. */
const MOST = 400;

const subject = computed(() => route.query.of === 'subject');
const show = (of: 'tag' | 'subject'): void =>
  void router.replace({ path: '/sources/tags', query: of === 'subject' ? { of } : {} });
watch(subject, () => chosen.clear());

const all = computed(() => (reply.value?.terms ?? []).filter((t) => t.subject === subject.value));
const byId = computed(() => new Map(all.value.map((t) => [t.id, t])));
const fitting = computed(() => {
  const wanted = typed.value.trim().toLowerCase();
  return wanted
    ? all.value.filter((t) => [t.name, t.says, t.heading].some((x) => x.toLowerCase().includes(wanted)))
    : all.value;
});
/** Under their headings, those without one last. */
const headed = computed(() => {
  const out = new Map<string, VocabularyTerm[]>();
  for (const t of fitting.value.slice(0, MOST)) {
    const heading = rootOf(t, byId.value).heading;
    out.set(heading, [...(out.get(heading) ?? []), t]);
  }
  return [...out]
    .sort(([a], [b]) => Number(!a) - Number(!b) || a.localeCompare(b, 'en'))
    .map(([heading, those]) => [heading, standing(those)] as const);
});
const headings = computed(() => [...new Set(all.value.map((t) => t.heading).filter(Boolean))]);
const making = ref(false);
const file = useTemplateRef<InstanceType<typeof KitFile>>('file');
/** What was left out of a vocabulary that came in. */
const messages = ref<string[]>([]);
const savings = computed(() =>
  (Object.keys(VOCABULARY_FORMATS) as VocabularyFormat[]).map((f) => ({
    name: VOCABULARY_FORMATS[f].name,
    run: () => terms.saveAs(f, subject.value),
  })),
);
async function bring(files: File[]): Promise<void> {
  const [file] = files;
  if (file) messages.value = (await terms.bring(await file.text(), subject.value)) ?? [];
}
/** What is near-identical: the one most used is what the others would become. */
const alike = computed(() =>
  (reply.value?.alike ?? [])
    .map((g) => g.ids.flatMap((id) => byId.value.get(id) ?? []).sort((a, b) => b.count - a.count))
    .filter((g) => g.length > 1),
);
const selected = computed(() => [...chosen].flatMap((id) => byId.value.get(id) ?? []));
/** Into the one most used. */
const into = computed(() => [...selected.value].sort((a, b) => b.count - a.count)[0]);
const others = (group: VocabularyTerm[]): string[] => group.slice(1).map((t) => t.id);

async function mergeChosen(): Promise<void> {
  await terms.merge(
    into.value!.id,
    selected.value.filter((t) => t !== into.value).map((t) => t.id),
  );
  chosen.clear();
}
const toggle = (id: string): void => void (chosen.has(id) ? chosen.delete(id) : chosen.add(id));
const addressOf = (t: VocabularyTerm): string =>
  `/sources?include=${encodeURIComponent(`${t.subject ? 'subject' : 'tag'}=${t.id}`)}`;
</script>

<template>
  <div class="h-full overflow-auto">
    <div class="mx-auto max-w-[60rem] px-6 py-5">
      <div class="flex flex-wrap items-baseline gap-x-5 gap-y-2">
        <h1 class="font-serif text-title font-semibold">Vocabulary</h1>
        <KitButton
          v-for="of in ['tag', 'subject'] as const"
          :key="of"
          look="bare"
          class="min-h-6 border-b-2"
          :class="
            (of === 'subject') === subject
              ? 'border-verdigris font-semibold'
              : 'border-transparent text-muted hover:text-ink'
          "
          :aria-pressed="(of === 'subject') === subject"
          @click="show(of)"
          >{{ of === 'tag' ? 'Tags' : 'Subject terms' }}
          <span class="count">{{
            (reply?.terms ?? []).filter((t) => t.subject === (of === 'subject')).length
          }}</span></KitButton
        >
        <KitField v-model="typed" class="ml-auto w-56" label="Find in the vocabulary" placeholder="Find" />
        <KitButton look="quiet" to="/sources">Back to the sources</KitButton>
      </div>
      <p class="mt-1 text-fine text-muted">
        {{
          subject
            ? 'Subject terms come with imported records and stay unchanged until someone edits them.'
            : 'Tags are the workspace’s own words; this page shows what each of them means.'
        }}
      </p>
      <p v-if="reply" class="mt-2 flex flex-wrap gap-3">
        <KitMenu :entries="savings" look="quiet">Save as</KitMenu>
        <template v-if="session.may('arrange')">
          <KitButton
            look="quiet"
            title="SKOS as Turtle or RDF/XML, or a table: name, meaning, heading, broader"
            @click="file?.ask()"
            >Bring a vocabulary in</KitButton
          >
          <KitFile ref="file" label="A vocabulary, as SKOS or as a table" @chosen="bring" />
        </template>
        <KitButton v-if="subject && session.may('arrange')" look="quiet" @click="making = true"
          >Make tags of terms</KitButton
        >
      </p>
      <div v-if="messages.length" class="mt-2 rounded bg-ochretint px-3 py-2" role="status">
        <b>{{ counted(messages.length, 'thing') }} left out</b>
        <ul class="mt-1 max-h-40 overflow-auto text-fine">
          <li v-for="(m, i) in messages.slice(0, 200)" :key="i">{{ m }}</li>
        </ul>
        <KitButton look="word" @click="messages = []">Close</KitButton>
      </div>
      <KitNotice v-if="error" tone="bad" class="mt-3">{{ error }}</KitNotice>
      <p v-else-if="!reply" class="mt-4 text-muted">Fetching the vocabulary…</p>
      <section
        v-if="alike.length && session.may('arrange')"
        class="mt-4 rounded-md bg-ochretint px-4 py-2.5"
        aria-label="Near-identical"
      >
        <h2 class="heading">One word in several spellings</h2>
        <ul class="mt-1">
          <li v-for="g in alike" :key="g[0]!.id" class="flex flex-wrap items-baseline gap-x-3 gap-y-1 py-1">
            <span v-for="t in g" :key="t.id"
              ><span :class="t.subject ? 'term' : 'tag'">{{ t.name }}</span>
              <span class="count">{{ t.count }}</span></span
            >
            <KitButton class="ml-auto" @click="terms.merge(g[0]!.id, others(g))"
              >Merge into “{{ g[0]!.name }}”</KitButton
            >
          </li>
        </ul>
      </section>
      <div
        v-if="selected.length > 1"
        class="sticky top-0 z-10 mt-3 flex items-center gap-2 border-b border-line bg-paper py-2"
      >
        <b>{{ counted(selected.length, subject ? 'term' : 'tag') }} selected</b>
        <KitButton look="main" @click="mergeChosen">Merge into “{{ into!.name }}”</KitButton>
        <KitButton look="quiet" @click="chosen.clear()">Unselect</KitButton>
      </div>
      <section
        v-for="[heading, those] in headed"
        :key="heading"
        class="mt-4"
        :aria-label="heading || 'Under no heading'"
      >
        <h2 v-if="heading || headed.length > 1" class="heading">{{ heading || 'Under no heading' }}</h2>
        <ul>
          <li
            v-for="{ term: t, depth } in those"
            :key="t.id"
            :style="{ paddingLeft: `${depth * 22}px` }"
            class="group flex min-h-[30px] items-baseline gap-3 border-b border-line py-1"
            :class="chosen.has(t.id) && 'bg-verdtint'"
          >
            <KitCheck
              v-if="session.may('arrange')"
              class="translate-y-0.5"
              :checked="chosen.has(t.id)"
              :label="`Select ${t.name}`"
              @check="toggle(t.id)"
            />
            <span class="shrink-0" :class="t.subject ? 'term' : 'tag'">{{ t.name }}</span>
            <span class="min-w-0 flex-1 truncate text-fine text-muted" :title="t.says">{{ t.says }}</span>
            <KitButton
              v-if="session.may('arrange')"
              look="quiet"
              class="at-hand"
              :name="`Alter ${t.name}`"
              @click="editing = t"
              >Alter</KitButton
            >
            <RouterLink class="count w-24 text-right hover:underline" :to="addressOf(t)">{{
              countSources(t.count)
            }}</RouterLink>
          </li>
        </ul>
      </section>
      <p v-if="fitting.length > MOST" class="mt-3 text-fine text-muted">
        {{ formatNumber(fitting.length - MOST) }} more: type a part of the name to find them.
      </p>
      <EmptyState v-if="reply && !fitting.length" :title="typed ? 'No matches' : 'Nothing here yet'">{{
        typed
          ? 'Searches names, meanings and headings.'
          : subject
            ? 'Subject terms come with records that have them.'
            : 'Add a tag to a source to create it: press t in the list.'
      }}</EmptyState>
    </div>
    <TermSheet v-model:term="editing" :headings="headings" :others="all" />
    <TermsToTags v-model:open="making" :of="reply?.terms ?? []" />
  </div>
</template>
