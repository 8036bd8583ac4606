<script setup lang="ts">
/** What everything is made of, in all its states: a page for development, and for the tests of accessibility. */
import { Plus, Star } from '@lucide/vue';
import { computed, ref } from 'vue';
import { ALL_KINDS } from '@pandecta/core/source';
import { counted } from '@pandecta/core/wording';
import BothValues from '../BothValues.vue';
import CheckMark from '../CheckMark.vue';
import ChooseBox from '../ChooseBox.vue';
import ConfirmInPlace from '../ConfirmInPlace.vue';
import EmptyState from '../EmptyState.vue';
import KitButton from '../KitButton.vue';
import KitCheck from '../KitCheck.vue';
import KitCombobox from '../KitCombobox.vue';
import KitDialog from '../KitDialog.vue';
import KitField from '../KitField.vue';
import KitMenu from '../KitMenu.vue';
import KitNotice from '../KitNotice.vue';
import KitPopover from '../KitPopover.vue';
import KitSelect from '../KitSelect.vue';
import KitTable from '../KitTable.vue';
import KitTabs from '../KitTabs.vue';
import ListRow from '../ListRow.vue';
import LitText from '../LitText.vue';
import ProgressBar from '../ProgressBar.vue';
import SplitHandle from '../SplitHandle.vue';
import StampMark from '../StampMark.vue';
import TimeText from '../TimeText.vue';
import { hasWords } from '../words.ts';

const SIZES = ['label', 'fine', 'body', 'read', 'title', 'display'] as const;
const CLASSES = {
  label: 'text-label',
  fine: 'text-fine',
  body: 'text-body',
  read: 'text-read',
  title: 'text-title',
  display: 'text-display',
} as const;
const LOOKS = ['plain', 'main', 'quiet', 'word', 'warn'] as const;
const LONG =
  'A very long text that does not fit where it stands: the Proceedings of the Third Meeting on Shores and Their Law, held at Withy in the spring';
const height = ref(60);
const open = ref(false);
const sheet = ref(false);
const text = ref('');
const name = ref('');
const title = ref('As it stands');
const kind = ref('a');
const checked = ref(true);
const said = ref('');
const entries = [
  { key: 'a', name: 'Chapter 1' },
  { key: 'b', name: LONG },
];
const fitting = computed(() => entries.filter((e) => hasWords(e.name, name.value)));
const menu = computed(() => [
  { name: 'RIS', hint: '.ris', run: () => (said.value = 'RIS') },
  { name: LONG, run: () => (said.value = 'long') },
  { name: 'With abstracts', checked: checked.value, run: () => (checked.value = !checked.value) },
  { name: 'Take away', warn: true, run: () => (said.value = 'away') },
]);
const tabs = ref(entries.map((e) => ({ ...e, to: `/${e.key}` })));
</script>

<template>
  <main class="mx-auto max-w-4xl space-y-8 p-8">
    <h1 class="font-serif text-display font-semibold">The kit</h1>
    <section aria-labelledby="type">
      <h2 id="type" class="heading mb-2">Six sizes of type</h2>
      <p v-for="s in SIZES" :key="s" :class="CLASSES[s]">
        <span class="inline-block w-24 font-mono text-label text-muted">{{ s }}</span>The gate was shut upon the ebb,
        <span class="font-serif">and the silt came in.</span>
      </p>
    </section>
    <section aria-labelledby="buttons">
      <h2 id="buttons" class="heading mb-2">Buttons</h2>
      <div v-for="disabled in [false, true]" :key="String(disabled)" class="mb-2 flex flex-wrap items-center gap-3">
        <KitButton v-for="look in LOOKS" :key="look" :look="look" :disabled="disabled">{{ look }}</KitButton>
        <KitButton look="icon" :name="disabled ? 'No new one' : 'New'" :disabled="disabled"
          ><Plus :size="14"
        /></KitButton>
        <KitButton aria-pressed="true" :disabled="disabled"
          ><Star :size="13" fill="currentColor" aria-hidden="true" />Starred</KitButton
        >
      </div>
      <KitButton class="max-w-60"
        ><span class="truncate">{{ LONG }}</span></KitButton
      >
    </section>
    <section aria-labelledby="opening">
      <h2 id="opening" class="heading mb-2">What opens</h2>
      <div class="flex flex-wrap items-center gap-2">
        <KitMenu :entries="menu">Menu</KitMenu>
        <KitPopover focus
          ><template #button>Popover</template
          ><template #default="{ close }">
            <div class="w-72 p-3">
              <KitField v-model="title" label="In the popover" /><KitButton class="mt-2" @click="close()"
                >Done</KitButton
              >
            </div></template
          ></KitPopover
        >
        <KitButton @click="open = true">Choose by name…</KitButton>
        <KitButton @click="sheet = true">Side sheet</KitButton>
        <ConfirmInPlace
          does="Cancel"
          asks="Nothing of it comes."
          yes="Cancel it"
          no="Go on"
          @confirm="said = 'cancelled'"
        />
        <span role="status">{{ said }}</span>
      </div>
    </section>
    <section aria-labelledby="fields">
      <h2 id="fields" class="heading mb-2">Fields</h2>
      <div class="grid grid-cols-2 gap-3">
        <KitField v-model="title" label="Title" above placeholder="As it is printed" />
        <KitSelect
          v-model="kind"
          label="Kind"
          above
          :options="[
            { value: 'a', name: 'Journal article' },
            { value: 'b', name: LONG },
          ]"
        />
        <KitField label="Note" above :lines="2" :model-value="LONG" />
        <KitField label="Publisher" above disabled model-value="Quillback Press" />
        <KitField label="Year" above model-value="19x2" error="“19x2” is no year" hint="from the layout, 70 % sure" />
        <KitSelect label="State" above disabled model-value="a" :options="[{ value: 'a', name: 'read' }]" />
        <KitCombobox
          v-slot="{ entry }"
          v-model:text="name"
          label="Name it"
          placeholder="Begin to type a name"
          :entries="name ? fitting : []"
          @choose="said = $event.name"
          >{{ entry.name }}</KitCombobox
        >
        <p class="flex items-center gap-3">
          <KitCheck :checked="checked" label="All" @check="checked = !checked" /><KitCheck
            :checked="false"
            some
            label="In part"
          /><CheckMark :checked="checked" @check="checked = !checked" />
        </p>
      </div>
    </section>
    <section aria-labelledby="words">
      <h2 id="words" class="heading mb-2">Chips, tags, subject terms, counts, stamps, moments</h2>
      <div class="flex flex-wrap items-center gap-3">
        <span class="chip">kind: journal article</span><span class="chip chip-out">not tag: adverse</span>
        <span class="tag">navigation rights</span><span class="term">Hydraulic structures</span
        ><span class="count">1,204</span><span>{{ counted(1, 'mark') }}, {{ counted(1204, 'mark') }}</span>
        <TimeText at="2026-03-14T09:30:00Z" /><TimeText at="2026-03-14T09:30:00Z" to="day" />
        <StampMark v-for="k in ALL_KINDS.slice(0, 12)" :key="k" :kind="k" />
      </div>
      <p class="mt-2 font-serif text-read">
        <LitText text="Closure of the <i>tidal barrier</i>" :lit="[{ start: 18, end: 23 }]" />
      </p>
    </section>
    <section aria-labelledby="states">
      <h2 id="states" class="heading mb-2">Trouble, progress, nothing</h2>
      <BothValues by="Ines Vance" theirs="Marsh as plaintiff, revised" :yours="LONG" />
      <KitNotice tone="bad" class="mt-3"
        >The server does not answer. Nothing was changed; try again in a moment.</KitNotice
      >
      <KitNotice tone="warn" boxed class="mt-2">These pages are pictures; their words cannot be found.</KitNotice>
      <KitNotice boxed class="mt-2">Cancelled; nothing was added</KitNotice>
      <ProgressBar class="mt-3" :max="10" :value="4" label="Reading tides.ris" />
      <ProgressBar class="mt-3" :max="0" :value="0" label="Beginning" />
      <EmptyState title="No sources yet"
        >Drop PDFs, RIS, BibTeX or CSL-JSON files anywhere on this page, or begin here.<template #deeds
          ><KitButton look="main">Add sources</KitButton></template
        ></EmptyState
      >
    </section>
    <section aria-labelledby="many">
      <h2 id="many" class="heading mb-2">Tabs, lines, tables</h2>
      <div class="bg-desk">
        <KitTabs label="Open" :tabs="tabs" current="a" @close="(t) => (tabs = tabs.filter((x) => x.key !== t.key))" />
      </div>
      <ListRow class="truncate py-1">{{ LONG }}</ListRow>
      <ListRow on class="py-1">The line one is at</ListRow>
      <KitTable
        class="mt-3"
        label="Files"
        heads
        :columns="[
          { key: 'key', name: 'Key', class: 'w-16 text-muted' },
          { key: 'name', name: 'Name' },
        ]"
        :rows="entries"
      >
        <template #key="{ row }">{{ row.key }}</template>
        <template #name="{ row }">{{ row.name }}</template>
      </KitTable>
    </section>
    <section aria-labelledby="edges">
      <h2 id="edges" class="heading mb-2">The edge of a pane</h2>
      <SplitHandle v-model="height" :min="20" :max="120" side="top" label="Height of the slip" />
      <div class="bg-panel" :style="{ height: `${height}px` }" />
    </section>
    <ChooseBox
      v-model:open="open"
      v-model:text="text"
      title="File 3 sources in"
      label="Name of a collection"
      :entries="entries"
      none="Nothing of this name."
      @choose="said = $event.name"
    >
      <template #default="{ entry }"
        ><span class="truncate">{{ entry.name }}</span></template
      >
    </ChooseBox>
    <KitDialog v-model:open="sheet" title="A sheet" at="side"><p class="mt-4">Along the side.</p></KitDialog>
  </main>
</template>
