<script setup lang="ts">
/** What everything is made of, in all its states: a page for development, and for the tests of accessibility. */
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue';
import { Star } from '@lucide/vue';
import { ref } from 'vue';
import { ALL_KINDS } from '@pandecta/core/source';
import BothValues from '../BothValues.vue';
import ChooseBox from '../ChooseBox.vue';
import { useFloating } from '../floating.ts';
import LitText from '../LitText.vue';
import SplitHandle from '../SplitHandle.vue';
import StampMark from '../StampMark.vue';

const SIZES = ['label', 'fine', 'body', 'read', 'title', 'display'] as const;
const CLASSES = {
  label: 'text-label',
  fine: 'text-fine',
  body: 'text-body',
  read: 'text-read',
  title: 'text-title',
  display: 'text-display',
} as const;
const LONG =
  'A very long text that does not fit where it stands: the Proceedings of the Third Meeting on Shores and Their Law, held at Withy in the spring';
const height = ref(60);
const open = ref(false);
const text = ref('');
const chosen = ref('');
const { style, place } = useFloating(180);
const entries = [
  { key: 'a', name: 'Chapter 1' },
  { key: 'b', name: LONG },
];
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
      <div class="flex flex-wrap items-center gap-2">
        <button class="btn">Edit record</button>
        <button class="btn btn-main">Read · 7 p.</button>
        <button class="btn" aria-pressed="true">
          <Star :size="13" fill="currentColor" aria-hidden="true" />Starred
        </button>
        <button class="btn" disabled>To the bin</button>
        <button class="btn max-w-60">
          <span class="truncate">{{ LONG }}</span>
        </button>
        <Menu as="div" class="relative">
          <MenuButton class="btn" @click="place">Export</MenuButton>
          <MenuItems class="menu" :style="style"
            ><MenuItem v-for="e in ['RIS', 'BibTeX', LONG]" :key="e" as="template"
              ><button class="menu-item" @click="chosen = e">{{ e }}</button></MenuItem
            ></MenuItems
          >
        </Menu>
        <button class="btn" @click="open = true">Choose by name…</button>
        <span role="status">{{ chosen }}</span>
      </div>
    </section>
    <section aria-labelledby="fields">
      <h2 id="fields" class="heading mb-2">Fields</h2>
      <div class="grid grid-cols-2 gap-3">
        <label>Title<input class="field mt-1" placeholder="As it is printed" /></label>
        <label
          >Kind<select class="field mt-1">
            <option>Journal article</option>
            <option>{{ LONG }}</option>
          </select></label
        >
        <label>Note<textarea class="field mt-1" rows="2" :value="LONG" /></label>
        <label>Publisher<input class="field mt-1" disabled value="Quillback Press" /></label>
      </div>
    </section>
    <section aria-labelledby="words">
      <h2 id="words" class="heading mb-2">Chips, tags, subject terms, counts, stamps</h2>
      <div class="flex flex-wrap items-center gap-3">
        <span class="chip">kind: journal article</span><span class="chip chip-out">not tag: adverse</span>
        <span class="tag">navigation rights</span><span class="term">Hydraulic structures</span
        ><span class="count">1,204</span>
        <StampMark v-for="k in ALL_KINDS.slice(0, 12)" :key="k" :kind="k" />
      </div>
      <p class="mt-2 font-serif text-read">
        <LitText text="Closure of the <i>tidal barrier</i>" :lit="[{ start: 18, end: 23 }]" />
      </p>
    </section>
    <section aria-labelledby="states">
      <h2 id="states" class="heading mb-2">Trouble, progress, nothing</h2>
      <BothValues by="Ines Vance" theirs="Marsh as plaintiff, revised" :yours="LONG" />
      <p role="alert" class="mt-3 text-madder">
        The server does not answer. Nothing was changed; try again in a moment.
      </p>
      <progress class="mt-3 h-1 w-full accent-verdigris" :max="10" :value="4" aria-label="Reading tides.ris" />
      <div class="p-6 text-center">
        <h3 class="font-serif text-title">No sources yet</h3>
        <p class="text-muted">Drop PDFs, RIS, BibTeX or CSL-JSON files anywhere on this page, or begin here.</p>
      </div>
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
      @choose="chosen = $event.name"
    >
      <template #default="{ entry }"
        ><span class="truncate">{{ entry.name }}</span></template
      >
    </ChooseBox>
  </main>
</template>
