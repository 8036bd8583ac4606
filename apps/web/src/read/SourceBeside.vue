<script setup lang="ts">
/** The source whose document is open: what it is, its marks and reading, and where the words stand that were searched. */
import { computed } from 'vue';
import { dateShort, namesShort } from '@pandecta/core/source';
import { placeWritten } from '@pandecta/core/page-numbers';
import { routes, type DocumentReply, type Mark, type PageHit, type SourceDetail } from '@pandecta/contract';
import { counted, formatNumber } from '@pandecta/core/wording';
import { useNoting } from '../act/noting.ts';
import { addressOf } from '../api/client.ts';
import KitButton from '../kit/KitButton.vue';
import LitText from '../kit/LitText.vue';
import { useSession } from '../session/store.ts';
import { GlossesBlock, ReadingSelect } from '../sources/index.ts';
import MarkList from './MarkList.vue';

const props = defineProps<{
  source: SourceDetail;
  /** null while another is being opened. */
  document: DocumentReply | null;
  /** Of a document that has pages: which one is looked at. */
  page?: { at: number; of: number; called: string };
  hits: PageHit[];
  hitAt: number;
  /** Those that are shown. */
  marks: Mark[];
  filtered: boolean;
  active: string | null;
}>();
const emit = defineEmits<{ hit: [at: number]; mark: [id: string]; readAnnotations: [] }>();
const session = useSession();
const noting = useNoting();
/** More nobody reads; the strip and the keys lead to all. */
const MOST = 60;

const about = computed(() => {
  const { record } = props.source;
  return [namesShort(record.author), record['container-title'] ?? record.publisher, dateShort(record.issued)]
    .filter(Boolean)
    .join(', ');
});
/** "12 marks", or of those a filter lets through "3 of 12 marks". */
const sum = computed(() => {
  const all = counted(props.document?.marks.length ?? 0, 'mark');
  return props.filtered ? `${formatNumber(props.marks.length)} of ${all}` : all;
});
</script>

<template>
  <aside class="hidden w-72 shrink-0 overflow-auto px-3.5 py-4 text-body lg:block" aria-label="This source">
    <h2 class="heading">This source</h2>
    <RouterLink
      :to="`/sources?at=${source.id}`"
      class="block font-serif text-read font-medium leading-[1.35] hover:underline"
      >{{ source.record.title }}</RouterLink
    >
    <p class="text-muted">{{ about }}</p>
    <h2 class="heading mt-4">{{ sum }}</h2>
    <MarkList
      v-if="document?.marks.length"
      :marks="marks"
      :senses="document.senses"
      :active="active"
      @mark="emit('mark', $event)"
    />
    <p v-else>Select words to mark them</p>
    <p v-if="document?.annotations && session.may('mark')" class="mt-1">
      The file has {{ counted(document.annotations, 'annotation') }} that
      {{ document.annotations === 1 ? 'is no mark' : 'are no marks' }} yet.
      <KitButton look="word" @click="emit('readAnnotations')">Read in</KitButton>
    </p>
    <RouterLink
      v-if="document?.marks.length"
      class="mt-1 inline-block py-1 text-verdigris hover:underline"
      to="/read/marks"
      >All marks across sources</RouterLink
    >
    <KitButton
      v-if="document?.marks.length && session.may('own')"
      look="word"
      class="ml-3 py-1"
      @click="
        noting.begin({
          marks: document.marks.map((m) => m.id).slice(0, 500),
          ...(!session.may('mark') && { personal: true }),
        })
      "
      >All of them into a note</KitButton
    >
    <GlossesBlock :id="source.id" class="mt-4" heading="h2" />
    <h2 class="heading mt-4">Reading</h2>
    <p v-if="page" class="mb-1">
      {{
        page.called === String(page.at)
          ? `Page ${page.at} of ${page.of}`
          : `Page ${page.called} (${page.at} of ${page.of})`
      }}
    </p>
    <ReadingSelect :id="source.id" :reading="source.reading" />
    <template v-if="hits.length">
      <h2 class="heading mt-4">Where it stands</h2>
      <ul>
        <li v-for="(h, i) in hits.slice(0, MOST)" :key="i">
          <KitButton
            look="bare"
            class="block w-full border-b border-line py-1 text-left text-fine"
            :class="i === hitAt && 'font-semibold'"
            @click="emit('hit', i)"
          >
            <span v-if="page" class="text-verdigris">{{ placeWritten(h.cited) }}</span>{{ ' '
            }}<LitText :text="h.text" :lit="h.lit" />
          </KitButton>
        </li>
      </ul>
    </template>
    <h2 class="heading mt-4">File</h2>
    <a
      v-if="document"
      class="hover:underline"
      :href="addressOf(routes.files.content, { file: document.fileId })"
      :download="document.name"
      >{{ document.name }}</a
    >
  </aside>
</template>
