<script setup lang="ts">
/** Begins a watch: of the search one looks at, or of an address that lists works; what is new goes where things go now. */
import { computed, ref, watch } from 'vue';
import { routes, type NewWatch, type Outside, type Watch } from '@pandecta/contract';
import { LISTING_KINDS, LISTINGS, type ListingKind } from '@pandecta/core/catalogues';
import { ask } from '../api/client.ts';
import KitButton from '../kit/KitButton.vue';
import KitCheck from '../kit/KitCheck.vue';
import KitDialog from '../kit/KitDialog.vue';
import KitField from '../kit/KitField.vue';
import KitNotice from '../kit/KitNotice.vue';
import KitSelect from '../kit/KitSelect.vue';
import { useDestination } from './destination.ts';
import { useOutside } from './outside.ts';
import { useTrial } from './trial.ts';

const props = defineProps<{
  /** The search to be watched; an address is asked for where there is none. */
  search?: { words: string; question: Outside; catalogues: string[] };
}>();
const open = defineModel<boolean>('open', { required: true });
const outside = useOutside();
const destination = useDestination();
const kind = ref<ListingKind>('feed');
const address = ref('');
const name = ref('');
const every = ref<Watch['every']>('week');
const mail = ref(false);
const { tried, attempt: trial } = useTrial();
watch(open, (now) => {
  if (!now) return;
  name.value = props.search?.words ?? '';
  address.value = '';
  tried.value = null;
});
const EVERY = [
  { value: 'hour', name: 'Every hour' },
  { value: 'day', name: 'Every day' },
  { value: 'week', name: 'Every week' },
  { value: 'month', name: 'Every month' },
] as const;
const kinds = LISTING_KINDS.map((value) => ({
  value,
  name: LISTINGS[value].replace(/^a /, '').replace(/^./, (c) => c.toUpperCase()),
}));
const goes = computed(() => destination.inWords(destination.set));
const ready = computed(() => name.value.trim() !== '' && (props.search || address.value.trim() !== ''));

const tryIt = (): Promise<void> =>
  trial(() => ask(routes.outside.tryListing, { body: { kind: kind.value, address: address.value.trim() } }));

async function begin(): Promise<void> {
  if (!ready.value) return;
  const what: Partial<NewWatch> = props.search
    ? { question: props.search.question, catalogues: props.search.catalogues }
    : { kind: kind.value, address: address.value.trim() };
  const made = {
    name: name.value.trim(),
    every: every.value,
    mail: mail.value,
    destination: destination.take(),
    ...what,
  };
  if (await outside.watchThis(made)) open.value = false;
}
</script>

<template>
  <KitDialog v-model:open="open" :title="search ? 'Watch this search' : 'Watch an address'">
    <form class="grid gap-2.5 px-4 pb-4 pt-2" @submit.prevent="begin">
      <template v-if="!search">
        <KitSelect v-model="kind" above label="What is there" :options="kinds" />
        <div class="flex items-end gap-2">
          <KitField v-model="address" above label="Address" placeholder="https://…" class="flex-1" />
          <KitButton :disabled="!address.trim()" @click="tryIt">Look</KitButton>
        </div>
        <KitNotice v-if="tried" :tone="tried.answered ? 'plain' : 'bad'">{{ tried.says }}</KitNotice>
      </template>
      <div class="grid grid-cols-[1fr_10rem] gap-2">
        <KitField v-model="name" above label="Name of the watch" placeholder="New in the journal" />
        <KitSelect v-model="every" above label="How often" :options="[...EVERY]" />
      </div>
      <p class="flex items-center gap-2">
        <KitCheck :checked="mail" label="E-mail me when there is something new" @check="mail = !mail" /><span
          aria-hidden="true"
          >E-mail me when there is something new</span
        >
      </p>
      <p class="text-fine text-muted">What was never seen goes to the intake; taken in, it goes {{ goes }}.</p>
      <div class="flex gap-2">
        <KitButton look="main" type="submit" :disabled="!ready">Watch</KitButton>
        <KitButton @click="open = false">Not now</KitButton>
      </div>
    </form>
  </KitDialog>
</template>
