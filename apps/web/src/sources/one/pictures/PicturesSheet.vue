<script setup lang="ts">
/** Makes one document of several pictures: put in order by dragging, turned, cut, taken out. */
import { computed, ref, useTemplateRef, watch } from 'vue';
import { routes } from '@pandecta/contract';
import { counted } from '@pandecta/core/wording';
import { useChanges } from '../../../act/changes.ts';
import { ask } from '../../../api/client.ts';
import { vDrag, vDrop, type Drop } from '../../../kit/drag.ts';
import KitButton from '../../../kit/KitButton.vue';
import KitDialog from '../../../kit/KitDialog.vue';
import KitField from '../../../kit/KitField.vue';
import KitFile from '../../../kit/KitFile.vue';
import CropPicture from './CropPicture.vue';
import { cropTurned, inOrder, moved, planOf, turnedOn, type PicturePage } from './pages.ts';
import TurnedPicture from './TurnedPicture.vue';

const props = defineProps<{ source: string; title: string }>();
const open = defineModel<boolean>('open', { required: true });
const { change } = useChanges();
const pages = ref<PicturePage[]>([]);
const name = ref('');
const cutting = ref<number | null>(null);
const isSending = ref(false);
const picker = useTemplateRef<InstanceType<typeof KitFile>>('picker');
let keys = 0;
watch(open, (isOpen) => {
  if (!isOpen) return;
  pages.value = [];
  cutting.value = null;
  name.value = props.title.slice(0, 120);
});

function add(files: File[]): void {
  const pictures = inOrder(files.filter((f) => /^image\//.test(f.type) || /\.(?:heic|heif|tiff?)$/i.test(f.name)));
  pages.value.push(...pictures.map((file) => ({ key: (keys += 1), file, turn: undefined, crop: undefined })));
}
function move(at: number, to: number): void {
  pages.value = moved(pages.value, at, to);
}
function turn(page: PicturePage): void {
  page.turn = turnedOn(page.turn);
  if (page.crop) page.crop = cropTurned(page.crop);
}
const beingCut = computed(() => pages.value.find((p) => p.key === cutting.value));

interface Dragged {
  pictureAt: number;
}
const over = ref<{ at: number; edge: 'before' | 'after' } | null>(null);
const dropOn = (at: number): Drop<Dragged> => ({
  accepts: (dragged) => typeof dragged.pictureAt === 'number',
  over: (dragged, edge) => (over.value = dragged && edge !== 'in' ? { at, edge } : null),
  dropped: ({ pictureAt }, edge) => move(pictureAt, edge === 'after' ? at + 1 : at),
});

async function make(): Promise<void> {
  const form = new FormData();
  form.append('name', name.value.trim() || 'Pictures');
  form.append('pages', JSON.stringify(planOf(pages.value)));
  for (const { file } of pages.value) form.append('file', file, file.name);
  isSending.value = true;
  if (await change(() => ask(routes.files.pictures, { source: props.source, form }))) open.value = false;
  isSending.value = false;
}
</script>

<template>
  <KitDialog v-model:open="open" at="page" title="Pictures as one document">
    <KitFile ref="picker" label="Pictures of pages" multiple @chosen="add" />
    <CropPicture
      v-if="beingCut"
      class="mt-4"
      :page="beingCut"
      :model-value="beingCut.crop"
      @update:model-value="beingCut.crop = $event"
      @done="cutting = null"
    />
    <form v-else class="mt-4 grid gap-4" @submit.prevent="make">
      <div class="flex flex-wrap items-end gap-3">
        <KitField v-model="name" class="min-w-60 flex-1" above label="Name of the document" maxlength="120" />
        <KitButton @click="picker?.ask()">{{ pages.length ? 'More pictures…' : 'Choose pictures…' }}</KitButton>
        <KitButton look="main" type="submit" :disabled="!pages.length || isSending">{{
          isSending ? 'Sending…' : `Make the document${pages.length ? ` of ${counted(pages.length, 'page')}` : ''}`
        }}</KitButton>
      </div>
      <p class="text-fine text-muted">
        JPEG, PNG, WebP, TIFF, HEIC. Pages are put upright and level and their text is recognised; a page you turn or
        cut stays as you say. The pictures become the pages: the files themselves are not kept beside the document.
      </p>
      <ol v-if="pages.length" class="grid grid-cols-[repeat(auto-fill,minmax(9.5rem,1fr))] gap-3">
        <li
          v-for="(p, i) in pages"
          :key="p.key"
          v-drag="() => ({ pictureAt: i })"
          v-drop.across="dropOn(i)"
          class="relative rounded-md border border-line bg-paper p-2"
          :class="
            over?.at === i &&
            (over.edge === 'before' ? 'border-l-4 border-l-verdigris' : 'border-r-4 border-r-verdigris')
          "
        >
          <TurnedPicture class="h-40" :file="p.file" :turn="p.turn ?? 0" :crop="p.crop" :size="150" />
          <div class="mt-1 flex items-center gap-x-2 text-label">
            <b>{{ i + 1 }}</b>
            <span class="min-w-0 flex-1 truncate" :title="p.file.name">{{ p.file.name }}</span>
            <KitButton look="word" :name="`Page ${i + 1} earlier`" :disabled="!i" @click="move(i, i - 1)">←</KitButton>
            <KitButton
              look="word"
              :name="`Page ${i + 1} later`"
              :disabled="i === pages.length - 1"
              @click="move(i, i + 2)"
              >→</KitButton
            >
          </div>
          <div class="mt-1 flex flex-wrap gap-x-2 text-label">
            <KitButton look="word" :name="`Turn page ${i + 1}`" @click="turn(p)">Turn</KitButton>
            <KitButton look="word" :name="`Cut page ${i + 1}`" @click="cutting = p.key">Cut…</KitButton>
            <KitButton look="word" :name="`Take out page ${i + 1}`" @click="pages.splice(i, 1)">Take out</KitButton>
          </div>
        </li>
      </ol>
      <p v-else class="text-muted">No pictures yet.</p>
    </form>
  </KitDialog>
</template>
