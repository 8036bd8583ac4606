<script setup lang="ts">
/** The senses of the workspace's marks: added, altered, put in order, merged, retired. */
import { computed, ref, watch } from 'vue';
import { routes, type Changed, type NewSense, type SenseInfo } from '@pandecta/contract';
import { COLOURS, offeredSenses, SENSE_KEYS } from '@pandecta/core/marks';
import { useChanges } from '../act/changes.ts';
import { ask } from '../api/client.ts';
import KitButton from '../kit/KitButton.vue';
import KitDialog from '../kit/KitDialog.vue';
import KitField from '../kit/KitField.vue';
import KitMenu from '../kit/KitMenu.vue';
import KitSelect from '../kit/KitSelect.vue';
import { FILL } from './colours.ts';

const open = defineModel<boolean>('open', { required: true });
const props = defineProps<{ senses: SenseInfo[] }>();
const { change } = useChanges();
const editing = ref<SenseInfo | null>(null);
const draft = ref(empty());
const offered = computed(() => offeredSenses(props.senses));
const retired = computed(() => props.senses.filter((s) => s.retired && !s.into));
const colours = COLOURS.map((c) => ({ value: c, name: c }));
const keys = computed(() => [
  { value: '', name: 'no key' },
  ...SENSE_KEYS.filter((k) => !offered.value.some((s) => s.key === k && s.id !== editing.value?.id)).map((k) => ({
    value: String(k),
    name: String(k),
  })),
]);

function empty(): { name: string; key: string; colour: (typeof COLOURS)[number]; says: string } {
  const free = SENSE_KEYS.find((k) => !props.senses.some((s) => s.key === k));
  return { name: '', key: String(free ?? ''), colour: COLOURS[props.senses.length % COLOURS.length]!, says: '' };
}
function begin(sense: SenseInfo | null): void {
  editing.value = sense;
  draft.value = sense
    ? { name: sense.name, key: String(sense.key ?? ''), colour: sense.colour, says: sense.says }
    : empty();
}
watch(open, (now) => now && begin(null));

const bodyOf = ({ name, key, colour, says, retired }: SenseInfo, more: Partial<NewSense> = {}): NewSense => ({
  name,
  key,
  colour,
  says,
  retired,
  ...more,
});
const edit = (sense: SenseInfo, body: NewSense): Promise<Changed | undefined> =>
  change(() => ask(routes.senses.edit, { sense: sense.id, body }));

async function save(): Promise<void> {
  const { name, key, colour, says } = draft.value;
  const body = { name: name.trim(), key: key ? Number(key) : null, colour, says };
  const done = editing.value
    ? await edit(editing.value, { ...body, retired: editing.value.retired })
    : await change(() => ask(routes.senses.make, { body }));
  if (done) begin(null);
}
function move(sense: SenseInfo, by: -1 | 1): void {
  const ids = offered.value.map((s) => s.id);
  const at = ids.indexOf(sense.id);
  ids.splice(at, 1);
  ids.splice(at + by, 0, sense.id);
  void change(() => ask(routes.senses.order, { body: { senses: ids } }));
}
const actionsOf = (sense: SenseInfo) => {
  const at = offered.value.indexOf(sense);
  return [
    { name: 'Change', run: () => begin(sense) },
    ...(at > 0 ? [{ name: 'Move up', run: () => move(sense, -1) }] : []),
    ...(at >= 0 && at < offered.value.length - 1 ? [{ name: 'Move down', run: () => move(sense, 1) }] : []),
    sense.retired
      ? { name: 'Offer again', run: () => edit(sense, bodyOf(sense, { retired: false })) }
      : { name: 'Retire', run: () => edit(sense, bodyOf(sense, { retired: true })) },
    ...offered.value
      .filter((o) => o.id !== sense.id)
      .map((o) => ({
        name: `Merge into ${o.name}`,
        run: () => change(() => ask(routes.senses.merge, { sense: sense.id, body: { into: o.id } })),
      })),
    {
      name: 'Remove',
      warn: true,
      run: () => change(() => ask(routes.senses.remove, { sense: sense.id })),
    },
  ];
};
</script>

<template>
  <KitDialog v-model:open="open" title="Senses of marks" at="side">
    <p class="mt-2 text-fine text-muted">
      What a mark says of the passage. The sentence is shown to everyone who chooses a sense. A retired sense stays on
      its marks and is not offered for new ones.
    </p>
    <ul class="mt-3 flex flex-col">
      <li
        v-for="s in [...offered, ...retired]"
        :key="s.id"
        class="flex items-start gap-2 border-b border-line py-1.5"
        :class="s.retired && 'text-muted'"
      >
        <span
          class="mt-0.5 inline-block h-[17px] w-[17px] shrink-0 rounded-[3px] text-center font-mono text-label font-semibold leading-[17px] text-[#1f262d]"
          :class="FILL[s.colour]"
          aria-hidden="true"
          >{{ s.key ?? '' }}</span
        >
        <div class="min-w-0 flex-1">
          {{ s.name }}<span v-if="s.retired" class="text-fine"> · retired</span>
          <p class="text-fine text-muted">{{ s.says || 'No sentence yet' }}</p>
        </div>
        <KitMenu :entries="actionsOf(s)" look="quiet" at="bottom-end" :name="`Change or move ${s.name}`"
          >Change…</KitMenu
        >
      </li>
    </ul>
    <form class="mt-4 flex flex-col gap-2" @submit.prevent="save">
      <h3 class="heading">{{ editing ? `Change “${editing.name}”` : 'New sense' }}</h3>
      <KitField v-model="draft.name" above label="Name" maxlength="60" />
      <div class="flex items-end gap-2">
        <KitSelect v-model="draft.key" above class="w-24" label="Key" :options="keys" />
        <KitSelect v-model="draft.colour" above class="w-32" label="Tint" :options="colours" />
      </div>
      <KitField v-model="draft.says" above label="What it is for, in a sentence" :lines="3" maxlength="500" />
      <div class="mt-1 flex justify-end gap-2">
        <KitButton v-if="editing" @click="begin(null)">Cancel</KitButton>
        <KitButton look="main" type="submit" :disabled="!draft.name.trim()">{{ editing ? 'Save' : 'Add' }}</KitButton>
      </div>
    </form>
  </KitDialog>
</template>
