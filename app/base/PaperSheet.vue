<script setup lang="ts">
// A paper as its reader sees it; the office, the customer's page and print show the same. It draws a document, and computes nothing.
import type { PaperDocument } from '~~/core/documents/paperDocument'

defineProps<{ paper: PaperDocument }>()
</script>

<template>
  <article class="paper sheet">
    <header>
      <div>
        <img
          v-if="paper.seller.logoId"
          class="logo"
          :src="`/api/v1/logos/${paper.seller.logoId}`"
          :alt="paper.seller.name"
        />
        <h2>{{ paper.seller.name }}</h2>
        <p
          v-for="line in paper.head"
          :key="line"
          class="quiet"
        >
          {{ line }}
        </p>
      </div>
      <div class="right">
        <h1 :style="{ color: paper.colour || undefined }">{{ paper.title }}</h1>
        <p
          v-for="fact in paper.facts"
          :key="fact.text"
          :class="{ strong: fact.strong }"
        >
          {{ fact.text }}
        </p>
      </div>
    </header>
    <div class="parties">
      <div>
        <span class="quiet small">{{ paper.buyer.as }}</span>
        <p class="strong">{{ paper.buyer.name }}</p>
        <p
          v-for="line in paper.buyer.address"
          :key="line"
        >
          {{ line }}
        </p>
      </div>
      <div>
        <span class="quiet small">{{ paper.place.as }}</span>
        <p class="text">{{ paper.place.text }}</p>
      </div>
    </div>
    <p
      v-if="paper.subject"
      class="strong"
    >
      {{ paper.subject }}
    </p>
    <p
      v-if="paper.opening"
      class="text opening"
    >
      {{ paper.opening }}
    </p>
    <table class="book">
      <thead>
        <tr>
          <th
            v-for="{ key, label } in paper.columns"
            :key="key"
            :class="[key, { right: key !== 'name' }]"
          >
            {{ label }}
          </th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="(line, i) in paper.lines"
          :key="i"
        >
          <td
            v-for="{ key } in paper.columns"
            :key="key"
            :class="[key, { 'right num': key !== 'name' }]"
          >
            {{ line[key] }}
            <span
              v-if="key === 'name' && line.beneath"
              class="quiet small beneath"
              >{{ line.beneath }}</span
            >
          </td>
        </tr>
      </tbody>
    </table>
    <div class="sums">
      <p class="grow">{{ paper.remark }}</p>
      <dl>
        <div
          v-for="(sum, i) in paper.sums"
          :key="i"
          :class="{ strong: sum.strong }"
        >
          <dt>{{ sum.label }}</dt>
          <dd class="num">
            <span :class="{ double: sum.strong }">{{ sum.amount }}</span>
          </dd>
        </div>
      </dl>
    </div>
    <footer>
      <p
        v-for="(text, i) in paper.notes"
        :key="i"
        class="text"
      >
        {{ text }}
      </p>
      <p class="quiet small text">{{ paper.conditions }}</p>
    </footer>
  </article>
</template>

<style scoped>
.logo {
  display: block;
  max-width: 220px;
  max-height: 72px;
  margin-bottom: 8px;
}
.paper {
  padding: 28px 32px;
  border-radius: 4px;
}
header,
.parties,
.sums {
  display: flex;
  justify-content: space-between;
  gap: 24px;
  margin-bottom: 22px;
}
.parties > div {
  flex: 1;
}
.strong {
  font-weight: 700;
}
.text {
  white-space: pre-line;
}
.opening {
  margin-bottom: 14px;
}
.beneath {
  display: block;
}
.sums {
  margin-top: 10px;
}
dl {
  margin: 0;
  min-width: 240px;
}
dl > div {
  display: flex;
  justify-content: space-between;
  gap: 24px;
  padding: 3px 10px;
}
dd {
  margin: 0;
}
footer {
  display: flex;
  flex-direction: column;
  gap: 8px;
}
@media (max-width: 560px) {
  .paper {
    padding: 18px 14px;
  }
  header,
  .parties,
  .sums {
    flex-direction: column;
    gap: 12px;
  }
  header .right {
    text-align: left;
  }
  .each {
    display: none;
  }
  .book td,
  .book th {
    padding-left: 2px;
    padding-right: 2px;
  }
  .book td + td,
  .book th + th {
    padding-left: 10px;
  }
}
</style>
