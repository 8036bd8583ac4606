<script setup lang="ts">
/** The files of a source, each opened by its name. */
import type { SourceDetail } from '@pandecta/contract';
import KitButton from '../../kit/KitButton.vue';
import { counted } from '../../kit/words.ts';

defineProps<{ source: SourceDetail }>();
const emit = defineEmits<{ open: [page?: number, file?: string] }>();
</script>

<template>
  <div>
    <h3 class="heading mb-0.5 mt-1.5">Files</h3>
    <ul>
      <li v-for="f in source.files" :key="f.id" class="truncate">
        <KitButton look="bare" class="hover:underline" @click="emit('open', undefined, f.id)">{{ f.name }}</KitButton>
        <span class="ml-1.5 text-muted"
          ><template v-if="/pdf/.test(f.mediaType)">{{ f.pages }} p.</template
          ><template v-else>{{ /^image/.test(f.mediaType) ? 'picture' : 'page of the web' }}</template
          ><template v-if="f.marks"> · {{ counted(f.marks, 'mark') }}</template
          ><template v-if="f.state !== 'text' && f.state !== 'other'"> · {{ f.state }}</template></span
        >
      </li>
      <li v-if="!source.files.length" class="text-muted">No file</li>
    </ul>
  </div>
</template>
