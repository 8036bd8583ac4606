<script setup lang="ts">
/** Several sources selected: what they share, and what may be done to all. */
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue';
import { computed, ref } from 'vue';
import { MOST_CITED, routes, type Chosen } from '@pandecta/contract';
import { READING_STATES } from '@pandecta/core/changes';
import { EXPORT_FORMATS, EXPORT_INFO } from '@pandecta/core/formats';
import { ask as fetchReply } from '../api/client.ts';
import StyleChooser from '../citing/StyleChooser.vue';
import { useAsked } from '../data/asked.ts';
import { concerns } from '../data/live.ts';
import { useCiting } from '../citing/store.ts';
import { usePlaces } from '../places/store.ts';
import { useSession } from '../session/store.ts';
import { useAsk } from './ask.ts';
import { useBatch } from './batch.ts';
import { useFloating } from '../kit/floating.ts';
import StarButton from './StarButton.vue';
import TagInput from './TagInput.vue';

const props = defineProps<{ chosen: Chosen; count: number }>();
const emit = defineEmits<{ file: [] }>();
const citing = useCiting();
const batch = useBatch();
const places = usePlaces();
const session = useSession();
const ask = useAsk();
const tagging = ref(false);
const { style, place } = useFloating(150);
const tagInput = ref<InstanceType<typeof TagInput>>();
const { value: sum, trouble } = useAsked({
  question: () => props.chosen,
  fetch: (body, signal) => fetchReply(routes.sources.summary, { body, signal }),
  concerns: (touched) => concerns(touched, ['source', 'tag', 'collection']),
});

const n = computed(() => props.count);
const share = (count: number): string => (count === n.value ? 'all' : String(count));

function startTagging(): void {
  tagging.value = true;
  tagInput.value?.focus();
}
defineExpose({ startTagging });
</script>

<template>
  <section class="h-full overflow-auto bg-card px-[18px] py-2.5" aria-label="Batch slip">
    <div class="flex flex-wrap items-center gap-1.5">
      <h3 class="mr-1 font-serif text-read font-semibold">{{ n.toLocaleString('en') }} sources</h3>
      <template v-if="session.may('edit') && ask.scope !== 'bin'">
        <button class="btn" @click="emit('file')">File to…</button>
        <button class="btn" @click="startTagging">Tag…</button>
        <Menu as="div" class="relative">
          <MenuButton class="btn" @click="place">Reading</MenuButton>
          <MenuItems class="menu" :style="style"
            ><MenuItem v-for="s in READING_STATES" :key="s" as="template"
              ><button class="menu-item" @click="batch.reading(chosen, s)">{{ s }}</button></MenuItem
            ><MenuItem as="template"
              ><button class="menu-item" @click="batch.reading(chosen, null)">none</button></MenuItem
            ></MenuItems
          >
        </Menu>
      </template>
      <StarButton v-if="sum && ask.scope !== 'bin'" :chosen="chosen" :starred="sum.starred === n" />
      <button
        class="btn"
        :disabled="n > MOST_CITED"
        :title="n > MOST_CITED ? `At most ${MOST_CITED} at once` : undefined"
        @click="citing.copyCited(chosen, 'bibliography')"
      >
        Copy bibliography
      </button>
      <button class="btn" :disabled="n > MOST_CITED" @click="citing.copyCited(chosen, 'citation')">
        Copy citation
      </button>
      <Menu as="div" class="relative">
        <MenuButton class="btn" @click="place">Export</MenuButton>
        <MenuItems class="menu" :style="style"
          ><MenuItem v-for="f in EXPORT_FORMATS" :key="f" as="template"
            ><button class="menu-item" @click="batch.exportAs(chosen, count, f)">
              {{ EXPORT_INFO[f].name }}
            </button></MenuItem
          ></MenuItems
        >
      </Menu>
      <button v-if="session.may('edit') && ask.scope === 'bin'" class="btn btn-main" @click="batch.restore(chosen)">
        Restore
      </button>
      <button v-else-if="session.may('edit')" class="btn" @click="batch.toBin(chosen)">To the bin</button>
      <span class="ml-auto"><StyleChooser /></span>
    </div>
    <div v-if="tagging" class="mt-2 w-64">
      <TagInput ref="tagInput" @add="batch.tag(chosen, $event)" @done="tagging = false" />
    </div>
    <p v-if="trouble" role="alert" class="mt-3 text-madder">{{ trouble }}</p>
    <div v-if="sum" class="mt-3 grid grid-cols-4 gap-6 text-fine">
      <div>
        <h4 class="heading mb-1">Kinds</h4>
        <p v-for="k in sum.kinds.slice(0, 7)" :key="k.name" class="flex justify-between">
          {{ k.name }}<span class="count">{{ share(k.count) }}</span>
        </p>
      </div>
      <div>
        <h4 class="heading mb-1">Tags and subject terms</h4>
        <p v-for="t in sum.tags.slice(0, 8)" :key="t.id" class="group flex justify-between gap-2">
          <span :class="t.subject ? 'term' : 'tag'">{{ t.name }}</span><span class="flex gap-1.5"
            ><button
              v-if="session.may('edit')"
              class="hidden text-muted hover:text-madder group-focus-within:inline group-hover:inline"
              :aria-label="`Take ${t.name} from all`"
              @click="batch.tag(chosen, t.name, false, t.subject)"
            >
              ✕</button
            ><span class="count">{{ share(t.count) }}</span></span
          >
        </p>
        <p v-if="!sum.tags.length" class="text-muted">None</p>
      </div>
      <div>
        <h4 class="heading mb-1">Filed under</h4>
        <p v-for="c in sum.collections.slice(0, 8)" :key="c.id" class="group flex justify-between gap-2">
          <span class="truncate">{{ c.path }}</span><span class="flex gap-1.5"
            ><button
              v-if="session.may('edit')"
              class="hidden text-muted hover:text-madder group-focus-within:inline group-hover:inline"
              :aria-label="`Remove all from ${c.path}`"
              @click="places.file(chosen, c.id, false)"
            >
              ✕</button
            ><span class="count">{{ share(c.count) }}</span></span
          >
        </p>
        <p v-if="!sum.collections.length" class="text-muted">In no collection</p>
      </div>
      <div>
        <h4 class="heading mb-1">Of these</h4>
        <p class="flex justify-between">
          with a file<span class="count">{{ share(sum.withFile) }}</span>
        </p>
        <p v-if="sum.starred" class="flex justify-between">
          starred<span class="count">{{ share(sum.starred) }}</span>
        </p>
        <p v-for="r in sum.reading" :key="r.state" class="flex justify-between">
          {{ r.state === 'none' ? 'no reading state' : r.state }}<span class="count">{{ share(r.count) }}</span>
        </p>
        <p v-if="sum.yearFrom" class="flex justify-between">
          years<span class="count">{{ sum.yearFrom }}–{{ sum.yearTo }}</span>
        </p>
      </div>
    </div>
  </section>
</template>
