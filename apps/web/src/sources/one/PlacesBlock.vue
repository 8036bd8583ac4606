<script setup lang="ts">
/** Where a source stands and what is said of it: collections, tags, labels, reading, rating. */
import { X } from '@lucide/vue';
import type { SourceDetail } from '@pandecta/contract';
import KitButton from '../../kit/KitButton.vue';
import { usePlaces } from '../../places/store.ts';
import { useSession } from '../../session/store.ts';
import { useBatch } from '../batch.ts';
import ReadingSelect from '../ReadingSelect.vue';
import LabelMark from '../assessments/LabelMark.vue';
import LabelMenu from '../assessments/LabelMenu.vue';
import RatingSelect from '../assessments/RatingSelect.vue';
import RecheckBox from '../assessments/RecheckBox.vue';
import TagInput from '../TagInput.vue';

defineProps<{
  /** The source one is at: its record may still be on its way, and what is typed is meant for it. */
  id: string;
  source: SourceDetail;
}>();
const emit = defineEmits<{ file: [] }>();
const batch = useBatch();
const places = usePlaces();
const session = useSession();
/** A tag is being written. */
const tagging = defineModel<boolean>('tagging', { default: false });
</script>

<template>
  <div>
    <h3 class="heading mb-1 flex justify-between">
      Filed under<KitButton v-if="session.may('edit')" look="quiet" class="font-normal" @click="emit('file')"
        >+ collection</KitButton
      >
    </h3>
    <ul>
      <li v-for="p in source.places" :key="p.path" class="group flex min-h-6 items-center gap-2">
        <RouterLink :to="`/sources?collection=${p.id}`" class="truncate hover:underline">{{
          p.path
        }}</RouterLink><KitButton
          v-if="session.may('edit')"
          look="bare"
          class="text-muted opacity-0 hover:text-madder focus-visible:opacity-100 group-hover:opacity-100"
          :name="`Remove from ${p.path}`"
          :title="`Remove from ${p.path}; the source stays`"
          @click="places.file({ ids: [id] }, [p.id], { present: false })"
          ><X :size="13"
        /></KitButton>
      </li>
      <li v-if="!source.places.length" class="text-muted">In no collection</li>
    </ul>
    <h3 class="heading mb-0.5 mt-1.5">Tags</h3>
    <div class="flex flex-wrap items-center gap-x-2 gap-y-1">
      <span
        v-for="t in source.tags"
        :key="t.id"
        :class="t.subject ? 'term' : 'tag'"
        class="group inline-flex gap-1"
        :title="t.subject ? 'A subject term: it came with the record' : 'A tag'"
      >
        <span v-if="t.subject" class="sr-only">Subject term:</span>{{ t.name
        }}<KitButton
          v-if="session.may('edit')"
          look="bare"
          class="hidden text-muted hover:text-madder group-focus-within:inline group-hover:inline"
          :name="`Take away ${t.name}`"
          @click="batch.tag({ ids: [id] }, t.name, false, t.subject)"
          ><X :size="12"
        /></KitButton>
      </span>
      <KitButton v-if="session.may('edit')" v-show="!tagging" look="quiet" class="min-h-6" @click="tagging = true"
        >+ add</KitButton
      >
      <TagInput v-if="tagging" class="w-40" @add="batch.tag({ ids: [id] }, $event)" @done="tagging = false" />
    </div>
    <div class="mt-1.5 flex flex-wrap items-center gap-x-2 gap-y-1">
      <LabelMark v-for="l in source.labels" :key="l.id" :label="l" named />
      <LabelMenu v-if="session.may('edit')" look="quiet" :chosen="{ ids: [id] }" :borne="source.labels.map((l) => l.id)"
        >+ label</LabelMenu
      >
    </div>
    <div class="mt-1">
      <RecheckBox v-if="session.may('edit')" :chosen="{ ids: [id] }" :recheck="source.recheck" />
      <span v-else-if="source.recheck !== null" class="text-ochre">Check again: {{ source.recheck }}</span>
    </div>
    <div class="mt-1.5 flex gap-3">
      <div>
        <h3 class="heading mb-0.5">Reading</h3>
        <ReadingSelect :id="id" :reading="source.reading" />
      </div>
      <div>
        <h3 class="heading mb-0.5">Rating</h3>
        <RatingSelect :chosen="{ ids: [id] }" :rating="source.rating" :disabled="!session.may('edit')" />
      </div>
    </div>
  </div>
</template>
