<script setup lang="ts">
/** What one wrote that is not saved yet: it is sent by itself, or shown with why not, to be written on or let go. */
import { formatNumber } from '@pandecta/core/wording';
import { useUnsent, type Unsent } from '../act/unsent.ts';
import KitButton from '../kit/KitButton.vue';
import KitPopover from '../kit/KitPopover.vue';

const unsent = useUnsent();
const stateOf = ({ error, met }: Unsent): string =>
  error
    ? `Refused: ${error}`
    : met
      ? `${met.by} wrote something else there meanwhile: go there and choose`
      : 'Saved as soon as the server answers';
</script>

<template>
  <KitPopover v-if="unsent.kept.length" look="bare" at="bottom-end">
    <template #button
      ><span class="whitespace-nowrap rounded px-1.5 py-0.5 font-semibold text-[#f2c46d] hover:text-white"
        >{{ formatNumber(unsent.kept.length) }} not saved yet</span
      ></template
    ><template #default="{ close }">
      <ul class="w-96" aria-label="Not saved yet">
        <li v-for="(one, i) in unsent.kept" :key="i" class="border-b border-line px-3 py-2 last:border-0">
          <div class="flex items-baseline gap-2">
            <RouterLink :to="one.to" class="min-w-0 flex-1 truncate font-medium hover:underline" @click="close()">{{
              one.says
            }}</RouterLink>
            <KitButton look="word" @click="unsent.letGo(one.edit)">Let go</KitButton>
          </div>
          <p v-if="one.text" class="line-clamp-4 whitespace-pre-wrap break-words font-serif">{{ one.text }}</p>
          <p :class="one.error ? 'text-madder' : 'text-muted'">{{ stateOf(one) }}</p>
        </li>
      </ul>
    </template></KitPopover
  >
</template>
