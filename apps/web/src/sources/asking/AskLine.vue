<script setup lang="ts">
/** The ask line: scope, narrowing and words stand together, as chips and text. Results come as one types. */
import { Search, X } from '@lucide/vue';
import { useThrottleFn } from '@vueuse/core';
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';
import { LOOK_IN, type LookIn } from '@pandecta/contract';
import { KINDS, type Kind } from '@pandecta/core/source';
import { useDeeds } from '../../act/commands.ts';
import { useBeside } from '../../kit/floating.ts';
import KitButton from '../../kit/KitButton.vue';
import KitField from '../../kit/KitField.vue';
import KitMenu from '../../kit/KitMenu.vue';
import OfferList from '../../kit/OfferList.vue';
import { useOffers } from '../../kit/offers.ts';
import { usePlaces } from '../../places/store.ts';
import { useSession } from '../../session/store.ts';
import { facetParts, useAsk } from '../ask.ts';
import { useLedger } from '../ledger/store.ts';
import { useNarrow } from '../narrow.ts';
import KeepSearch from '../saved/KeepSearch.vue';
import { useSuggestions, type Suggestion } from './suggestions.ts';

const building = defineModel<boolean>('building', { required: true });
const ask = useAsk();
const ledger = useLedger();
const places = usePlaces();
const narrow = useNarrow();
const session = useSession();
const draft = ref(ask.text);
const input = useTemplateRef<InstanceType<typeof KitField>>('input');
const focused = ref(false);
watch(focused, (now) => (ledger.isAsking = now));
const caret = ref(0);
/** What is offered is sent away until something else is typed. */
const dismissed = ref(false);
const offering = computed(() => focused.value && !dismissed.value);
const { typing, entries } = useSuggestions(draft, caret, offering);
const offers = useOffers(entries, take);
const { id: offersId, active, attributes } = offers;
const belowAt = useBeside(useTemplateRef<HTMLElement>('line'), useTemplateRef<HTMLElement>('below'));

// The first letter goes at once; while more follow, what stands there then.
/** What was sent and has not come round yet: it is older than what stands in the line, and takes nothing back. */
const sent = new Set<string>();
const send = useThrottleFn(() => (sent.add(draft.value), ask.setText(draft.value)), 80, true, true);
watch(draft, () => void send());
watch(
  () => ask.text,
  (text) => {
    if (text === draft.value || text === draft.value.trim()) sent.clear();
    else if (!sent.delete(text)) draft.value = text;
  },
);

useDeeds({
  ask: () => {
    input.value?.focus();
    input.value?.select();
  },
  build: () => void (building.value = !building.value),
});

interface Chip {
  text: string;
  out: boolean;
  remove: () => void;
}

const LOOKS: Record<LookIn, string> = {
  all: 'Everywhere',
  record: 'In the record',
  pages: 'In full text',
  notes: 'In notes and marks',
};
const looks = computed(() =>
  LOOK_IN.map((l) => ({ name: LOOKS[l], sign: ask.look === l ? '•' : '', run: () => ask.setLook(l) })),
);

const chips = computed<Chip[]>(() => {
  const out: Chip[] = [];
  if (ask.collection) {
    out.push({ text: `in: ${places.pathOf(ask.collection)}`, out: false, remove: () => ask.setCollection(undefined) });
    if (ask.alone) out.push({ text: 'without what is below it', out: false, remove: () => ask.setAlone(false) });
  }
  if (ask.scope === 'loose') out.push({ text: 'in no collection', out: false, remove: () => ask.setScope('live') });
  if (ask.scope === 'bin') out.push({ text: 'in the bin', out: true, remove: () => ask.setScope('live') });
  for (const f of ask.include) out.push({ text: facetText(f), out: false, remove: () => ask.drop(f) });
  for (const f of ask.exclude) out.push({ text: `not ${facetText(f)}`, out: true, remove: () => ask.drop(f) });
  const [from, to] = ask.years;
  if (from !== undefined || to !== undefined)
    out.push({
      text: `years: ${from ?? '…'}–${to ?? '…'}`,
      out: false,
      remove: () => ask.setYears(undefined, undefined),
    });
  return out;
});

/** Whether anything stands below the collection in scope. */
const hasBelow = computed(() => (places.reply?.placements ?? []).some((p) => p.parent === ask.collection));

function facetText(facet: string): string {
  const [type, key] = facetParts(facet);
  const name = narrow.nameOf(type, key) ?? (type === 'kind' ? KINDS[key as Kind]?.name : undefined) ?? key;
  return `${type}: ${name.toLowerCase() === name || type === 'person' ? name : name.toLowerCase()}`;
}

/** To the list, or out of the line where there is none. */
function leave(): void {
  input.value?.blur();
  document.getElementById('ledger')?.focus();
}

async function take({ text }: Suggestion): Promise<void> {
  const { start, end } = typing.value!;
  // A field goes on with its value; what is whole is followed by a space.
  const written = text.endsWith(':') ? text : `${text} `;
  draft.value = draft.value.slice(0, start) + written + draft.value.slice(end).trimStart();
  await nextTick();
  input.value?.focus();
  input.value?.placeCaret(start + written.length);
  caret.value = start + written.length;
}

function look(): void {
  caret.value = input.value?.caret() ?? draft.value.length;
}

function typed(): void {
  dismissed.value = false;
  look();
}

function key(event: KeyboardEvent): void {
  if (offers.key(event)) return;
  if (event.key === 'Backspace' && !draft.value && input.value?.caret() === 0) chips.value.at(-1)?.remove();
  else if (entries.value.length && event.key === 'Escape') dismissed.value = true;
  // Escape only leaves: the words stay.
  else if (['Enter', 'ArrowDown', 'Escape'].includes(event.key)) leave();
  else return;
  event.preventDefault();
}
</script>

<template>
  <div class="flex items-center gap-2 border-b border-line px-4 py-2.5">
    <div
      ref="line"
      class="flex h-9 min-w-0 flex-1 items-center gap-1.5 rounded-md border-[1.5px] border-verdigris bg-card px-2.5 outline-verdigris has-[input:focus-visible]:outline-2 has-[input:focus-visible]:outline-offset-1"
      role="search"
      @click="input?.focus()"
    >
      <Search :size="15" class="shrink-0 text-muted" aria-hidden="true" />
      <div class="flex max-w-[62%] gap-1.5 overflow-x-auto">
        <span v-for="c in chips" :key="c.text" class="chip" :class="c.out && 'chip-out'"
          >{{ c.text
          }}<KitButton look="bare" :name="`Take away ${c.text}`" @click.stop="c.remove()"><X :size="12" /></KitButton
        ></span>
      </div>
      <KitButton
        v-if="ask.collection && !ask.alone && hasBelow"
        look="quiet"
        class="shrink-0"
        title="Only sources filed directly in the collection"
        @click.stop="ask.setAlone(true)"
        >without below</KitButton
      >
      <KitField
        ref="input"
        v-model="draft"
        look="bare"
        class="min-w-40 flex-1 text-read"
        :placeholder="
          chips.length ? 'Words, or field:value' : 'Ask: words, “phrases”, -not, author:name, year:1980-2026, tag:name'
        "
        label="Ask"
        style="outline: none"
        spellcheck="false"
        v-bind="attributes"
        @keydown="key"
        @keyup="look"
        @click="look"
        @input="typed"
        @focus="((focused = true), look())"
        @blur="((focused = false), (dismissed = false))"
      />
      <KitMenu
        v-if="draft"
        :entries="looks"
        look="quiet"
        at="bottom-end"
        class="shrink-0"
        :name="`${LOOKS[ask.look]}: what is searched for the words`"
        @mousedown.prevent
        @click.stop
        ><span aria-hidden="true">{{ LOOKS[ask.look] }} ▾</span></KitMenu
      >
      <KitButton
        v-if="draft || chips.length"
        look="quiet"
        class="shrink-0"
        @mousedown.prevent
        @click="((draft = ''), ask.clear())"
        >Clear</KitButton
      >
      <div
        v-if="focused && (entries.length || ledger.notes.length)"
        ref="below"
        class="z-30 min-w-80 overflow-auto rounded-md border border-line bg-card py-1 shadow-lg"
        :style="belowAt"
      >
        <OfferList
          v-if="entries.length"
          :id="offersId"
          v-model:active="active"
          label="Suggestions"
          :entries="entries"
          @take="take"
        />
        <div v-if="ledger.notes.length" class="px-3 py-1 text-fine" role="status">
          <p v-for="n in ledger.notes" :key="`${n.start} ${n.says}`" class="text-ochre">
            <code class="mr-1.5 rounded bg-ochretint px-1 font-mono text-label">{{
              draft.slice(n.start, n.end) || '…'
            }}</code>{{ n.says }}
          </p>
        </div>
      </div>
    </div>
    <KitButton class="!py-[7px]" :aria-expanded="building" @click="building = !building">Build…</KitButton>
    <KeepSearch />
    <KitButton
      v-if="session.may('gather')"
      look="main"
      class="!py-[7px]"
      :to="ask.collection ? `/gather?into=${ask.collection}` : '/gather'"
      >Add sources</KitButton
    >
  </div>
</template>
