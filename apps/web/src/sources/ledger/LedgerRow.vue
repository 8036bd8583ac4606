<script setup lang="ts">
import { Star } from '@lucide/vue';
import { computed } from 'vue';
import type { SourceRow } from '@pandecta/contract';
import { whenOf, whereOf, whoOf } from '@pandecta/core/source';
import { counted, formatNumber } from '@pandecta/core/wording';
import CheckMark from '../../kit/CheckMark.vue';
import ListRow from '../../kit/ListRow.vue';
import LitText from '../../kit/LitText.vue';
import StampMark from '../../kit/StampMark.vue';
import LabelMark from '../assessments/LabelMark.vue';
import { dots } from '../assessments/ratings.ts';
import { usePlaces } from '../../places/store.ts';
import { cellText, missingIn, titleOf } from './cells.ts';
import { useLook } from './columns.ts';
import { dayInWords } from '../values.ts';

const props = defineProps<{ row: SourceRow; checked: boolean; current: boolean }>();
const emit = defineEmits<{ check: []; open: [page?: number, file?: string] }>();

const places = usePlaces();
const look = useLook();
const record = computed(() => props.row.record);
const title = computed(() => titleOf(props.row));
const missing = computed(() => missingIn(props.row));
const first = computed(() => props.row.hits[0]);
const figures = computed(() =>
  [
    props.row.marks ? counted(props.row.marks, 'mark') : '',
    props.row.pages ? `${props.row.pages} p.` : props.row.files && !props.row.fileTrouble ? 'file' : '',
  ].filter(Boolean),
);
const meaning = ({ says, name }: { says?: string | null; name: string }): string => (says ? `${name}: ${says}` : name);

/** Where it stands, shown when one rests on the number. */
const named = computed(() => props.row.places.map((id) => places.pathOf(id)).join('\n'));
/** How it came into the bin, and until when it waits there. */
const binned = computed(() => {
  const { bin, places: in_ } = props.row;
  if (!bin) return '';
  const from = in_.length ? `from ${in_.map((id) => places.byId.get(id)?.name ?? '').join(', ')}` : 'in no collection';
  return `Removed ${dayInWords(bin.at)}${bin.by && ` by ${bin.by}`}, ${from}; goes for good ${dayInWords(bin.goes)}`;
});
</script>

<template>
  <ListRow class="@container" :on="current || checked" :class="look.density === 'one' ? 'py-[5px]' : 'py-1.5'">
    <div v-if="look.density !== 'one'" class="grid h-full grid-cols-[16px_26px_minmax(0,1fr)_auto] gap-x-[11px]">
      <CheckMark class="mt-[3px]" :checked="checked" @check="emit('check')" />
      <StampMark :kind="record.type" />
      <div class="min-w-0">
        <p
          class="line-clamp-1 font-serif text-read leading-[1.28]"
          :class="row.reading === 'read' ? 'font-normal' : 'font-medium'"
        >
          <LitText :text="title" :lit="row.titleLit" />
        </p>
        <p class="truncate text-fine text-muted">
          {{ binned || [whoOf(record), whereOf(record), whenOf(record)].filter(Boolean).join(' · ')
          }}<span v-if="missing && !binned" class="text-ochre"> · {{ missing }}</span>
        </p>
        <p v-if="row.abstract && look.density === 'full'" class="line-clamp-2 text-fine leading-[18px]">
          {{ row.abstract }}
        </p>
        <!-- Clamped, not cut by the letter: a lit word behind the ellipsis would leave its colour. -->
        <p v-if="first" class="flex items-baseline gap-2 text-fine leading-[18px]">
          <span class="line-clamp-1 min-w-0">
            <!-- A line is one option of a list and holds no controls of its own: Enter opens at this page too. -->
            <span
              v-if="first.page"
              class="cursor-pointer font-medium text-verdigris hover:underline"
              @click.stop="emit('open', first.page, first.fileId)"
              >{{ first.where }}</span><span v-else class="text-muted">{{ first.where }}</span>
            <span class="mx-1" aria-hidden="true">…</span
            ><LitText
              :text="first.text.replace(/^… /, '')"
              :lit="
                first.text.startsWith('… ') ? first.lit.map((l) => ({ start: l.start - 2, end: l.end - 2 })) : first.lit
              "
            />
          </span>
          <span v-if="row.hits.length > 1" class="shrink-0 text-muted"
            ><template v-for="h in row.hits.slice(1)" :key="h.where"
              ><span
                class="mr-1.5"
                :class="h.page ? 'cursor-pointer text-verdigris hover:underline' : ''"
                :title="h.text"
                @click="h.page && ($event.stopPropagation(), emit('open', h.page, h.fileId))"
                >{{ h.where }}</span
              ></template
            ><template v-if="row.moreHits">{{ formatNumber(row.moreHits) }} more</template></span
          >
        </p>
      </div>
      <div class="flex max-w-[min(18rem,36cqw)] flex-col items-end">
        <!-- What does not fit goes to a second line, which is not seen: no number is broken. -->
        <p class="count flex h-[1.35em] max-w-full flex-wrap justify-end gap-x-2.5 overflow-hidden whitespace-nowrap">
          <Star
            v-if="row.starred"
            :size="12"
            class="self-center text-verdigris"
            fill="currentColor"
            aria-label="starred"
          />
          <span v-for="l in row.labels" :key="l.id" class="self-center"><LabelMark :label="l" /></span>
          <span
            v-if="row.recheck !== null"
            class="font-sans text-fine text-ochre"
            :title="row.recheck || 'No reason was given'"
            >check again</span
          >
          <span v-if="row.rating" :aria-label="`rated ${row.rating} of 5`" :title="`Rated ${row.rating} of 5`">{{
            dots(row.rating)
          }}</span>
          <span v-if="row.reading" class="font-sans text-fine" :class="row.reading === 'reading' && 'text-verdigris'">{{
            row.reading
          }}</span><span v-if="row.fileTrouble" class="font-sans text-fine text-ochre">{{ row.fileTrouble }}</span
          ><span v-for="f in figures" :key="f">{{ f }}</span
          ><span v-if="row.places.length" :title="named">{{ counted(row.places.length, 'place') }}</span>
        </p>
        <p
          class="mt-0.5 flex h-[21px] max-w-full flex-wrap content-start items-start justify-end gap-x-1.5 gap-y-2 overflow-hidden whitespace-nowrap"
        >
          <span
            v-for="t in row.tags.slice(0, 4)"
            :key="t.id"
            class="max-w-full truncate"
            :class="t.subject ? 'term' : 'tag'"
            :title="meaning(t)"
            ><span v-if="t.subject" class="sr-only">subject term: </span>{{ t.name }}</span
          >
          <span v-if="row.tags.length > 4" class="text-fine text-muted">+{{ row.tags.length - 4 }}</span>
        </p>
      </div>
    </div>
    <div v-else class="grid h-full items-center gap-x-[11px]" :style="{ gridTemplateColumns: look.grid }">
      <CheckMark :checked="checked" @check="emit('check')" />
      <StampMark :kind="record.type" />
      <span class="truncate font-serif text-body"><LitText :text="title" :lit="row.titleLit" /></span>
      <template v-for="c in look.columns" :key="c.id">
        <!-- Tags that do not fit go to a second line, which is not seen: none is cut in a letter. -->
        <span
          v-if="c.id === 'tags'"
          class="flex h-[21px] flex-wrap gap-x-1.5 gap-y-2 overflow-hidden whitespace-nowrap"
          :title="row.tags.map(meaning).join('\n')"
          ><span v-for="t in row.tags" :key="t.id" class="max-w-full truncate" :class="t.subject ? 'term' : 'tag'">{{
            t.name
          }}</span></span
        >
        <span v-else-if="c.id === 'labels'" class="flex gap-1 overflow-hidden"
          ><LabelMark v-for="l in row.labels" :key="l.id" :label="l"
        /></span>
        <span
          v-else
          class="truncate text-fine"
          :class="c.id === 'missing' ? 'text-ochre' : 'text-muted'"
          :title="c.id === 'places' ? named : cellText(row, c.id)"
          >{{ cellText(row, c.id) }}</span
        >
      </template>
    </div>
  </ListRow>
</template>
