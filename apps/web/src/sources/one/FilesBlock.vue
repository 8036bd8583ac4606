<script setup lang="ts">
/** The files of a source: opened by their names, added, renamed, replaced, taken away; links among them. */
import { Ellipsis } from '@lucide/vue';
import { computed, ref, useTemplateRef } from 'vue';
import { routes, type FileOfSource, type SourceDetail } from '@pandecta/contract';
import { counted } from '@pandecta/core/wording';
import { useChanges } from '../../act/changes.ts';
import { addressOf, ask } from '../../api/client.ts';
import KitButton from '../../kit/KitButton.vue';
import KitField from '../../kit/KitField.vue';
import KitFile from '../../kit/KitFile.vue';
import KitMenu, { type MenuEntry } from '../../kit/KitMenu.vue';
import PicturesSheet from './pictures/PicturesSheet.vue';
import { useSession } from '../../session/store.ts';

const props = defineProps<{ source: SourceDetail }>();
const emit = defineEmits<{ open: [page?: number, file?: string] }>();
const { change } = useChanges();
const session = useSession();
const mayAlter = computed(() => session.may('edit') && props.source.presence === 'live');
const picker = useTemplateRef<InstanceType<typeof KitFile>>('picker');
/** The file that is replaced by the one being chosen. */
const instead = ref<string | null>(null);
const renaming = ref<string | null>(null);
const name = ref('');
const linking = ref(false);
const picturing = ref(false);
const address = ref('');

function choose(replaced: string | null): void {
  instead.value = replaced;
  picker.value?.ask();
}
async function add([file]: File[]): Promise<void> {
  if (!file) return;
  const form = new FormData();
  if (instead.value) form.append('instead', instead.value);
  form.append('file', file, file.name);
  await change(() => ask(routes.files.add, { source: props.source.id, form }));
}
async function rename(file: FileOfSource): Promise<void> {
  if (renaming.value !== file.id) return;
  renaming.value = null;
  if (name.value.trim() && name.value.trim() !== file.name)
    await change(() => ask(routes.files.edit, { source: props.source.id, file: file.id, body: { name: name.value } }));
}
async function link(): Promise<void> {
  const body = { address: /^https?:/.test(address.value) ? address.value : `https://${address.value}` };
  if (await change(() => ask(routes.files.link, { source: props.source.id, body }))) {
    linking.value = false;
    address.value = '';
  }
}
function deedsOf(f: FileOfSource): MenuEntry[] {
  const of = { source: props.source.id, file: f.id };
  return [
    {
      name: 'Rename',
      run: () => {
        name.value = f.name;
        renaming.value = f.id;
      },
    },
    ...(f.address ? [] : [{ name: 'Replace the file…', run: () => choose(f.id) }]),
    ...(f.address || props.source.files.length < 2
      ? []
      : [
          {
            name: f.main ? 'No longer the one that is opened first' : 'Open this one first',
            run: () => change(() => ask(routes.files.edit, { ...of, body: { main: !f.main } })),
          },
        ]),
    {
      name: f.address ? 'Remove the link' : 'Remove it from this source',
      warn: true,
      run: () => change(() => ask(routes.files.remove, of)),
    },
  ];
}
const what = (f: FileOfSource): string =>
  f.address
    ? 'link'
    : /pdf/.test(f.mediaType)
      ? `${f.pages} p.`
      : /^image/.test(f.mediaType)
        ? 'picture'
        : /html/.test(f.mediaType)
          ? f.name.endsWith('(for reading).html')
            ? 'its text'
            : 'page of the web'
          : 'file';
const contentOf = (f: FileOfSource): string => addressOf(routes.files.content, { file: f.id });
const opens = (f: FileOfSource): boolean => !f.address && /pdf|html|^image/.test(f.mediaType);
</script>

<template>
  <div>
    <h3 class="heading mb-0.5 flex justify-between">
      Files<span v-if="mayAlter" class="flex gap-3 print:hidden"
        ><KitButton look="quiet" class="font-normal" @click="choose(null)">+ file</KitButton
        ><KitButton look="quiet" class="font-normal" @click="picturing = true">+ pictures</KitButton
        ><KitButton look="quiet" class="font-normal" @click="linking = !linking">+ link</KitButton></span
      >
    </h3>
    <PicturesSheet
      v-if="mayAlter"
      v-model:open="picturing"
      :source="source.id"
      :title="source.record.title ?? 'Pictures'"
    />
    <KitFile ref="picker" label="A file for this source" @chosen="add" />
    <form v-if="linking" class="my-1 flex gap-1.5" @submit.prevent="address.trim() && link()">
      <KitField
        v-model="address"
        class="min-w-0 flex-1"
        label="Address"
        placeholder="https://"
        inputmode="url"
        @keydown.esc.stop="linking = false"
      />
      <KitButton type="submit" :disabled="!address.trim()">Add</KitButton>
    </form>
    <ul>
      <li v-for="f in source.files" :key="f.id" class="group flex min-h-6 items-baseline gap-1.5">
        <KitField
          v-if="renaming === f.id"
          v-model="name"
          class="min-w-0 flex-1"
          label="Name of the file"
          @keydown.enter="rename(f)"
          @keydown.esc.stop="renaming = null"
          @blur="rename(f)"
        />
        <KitButton
          v-else-if="opens(f)"
          look="bare"
          class="min-w-0 truncate hover:underline"
          @click="emit('open', undefined, f.id)"
          >{{ f.name }}</KitButton
        >
        <KitButton v-else look="bare" class="min-w-0 truncate hover:underline" :href="f.address ?? contentOf(f)">{{
          f.name
        }}</KitButton>
        <span class="shrink-0 text-muted"
          >{{ what(f) }}<template v-if="f.marks"> · {{ counted(f.marks, 'mark') }}</template
          ><template v-if="f.state !== 'text' && f.state !== 'other'"> · {{ f.state }}</template
          ><template v-if="f.main"> · opened first</template></span
        >
        <KitMenu
          v-if="mayAlter && renaming !== f.id"
          :entries="deedsOf(f)"
          look="bare"
          at="bottom-end"
          class="at-hand ml-auto text-muted print:hidden"
          :name="`What to do with ${f.name}`"
          ><Ellipsis :size="14"
        /></KitMenu>
      </li>
      <li v-if="!source.files.length" class="text-muted">No file</li>
    </ul>
  </div>
</template>
