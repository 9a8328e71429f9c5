// The guide (docs/guide, one Markdown file a screen) as the app shows it: drawn when it is built, and fetched when somebody asks.
import { readdirSync, readFileSync } from 'node:fs'
import { dirname, join, posix, relative } from 'node:path'
import MarkdownIt from 'markdown-it'
import { addTemplate, defineNuxtModule } from 'nuxt/kit'
import type { GuidePage } from '../core/text/guidePages'

/** The name that the router gives to the screen of a file: `calls/id.md` is about calls-id. */
export const screenOf = (file: string): string =>
  file
    .replace(/\.md$/, '')
    .split('/')
    .filter((part, i, parts) => !(part === 'index' && i === parts.length - 1 && i > 0))
    .join('-')

const markdown = new MarkdownIt({ html: false })
const links = markdown.renderer.rules.link_open
/** A page as it is shown; a link to another page leads to that screen's. */
export function pageOf(file: string, source: string): GuidePage {
  markdown.renderer.rules.link_open = (tokens, i, options, env, self) => {
    const href = String(tokens[i]!.attrGet('href'))
    if (href.endsWith('.md'))
      tokens[i]!.attrSet('href', `#${screenOf(posix.join(dirname(file), href))}`)
    return links?.(tokens, i, options, env, self) ?? self.renderToken(tokens, i, options)
  }
  const [, title = '', rest = ''] = /^# (.+)\n([\s\S]*)$/.exec(source) ?? []
  return {
    name: screenOf(file),
    title,
    html: markdown.render(rest),
    text: rest.replace(/[*`#[\]]|\(\S+\.md\)/g, '').trim(),
  }
}
const GUIDE = 'docs/guide'
export function guidePages(root: string): GuidePage[] {
  const folder = join(root, GUIDE)
  return readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile())
    .map(({ parentPath, name }) => join(parentPath, name))
    .map((path) => pageOf(relative(folder, path), readFileSync(path, 'utf8')))
    .toSorted((a, b) => a.title.localeCompare(b.title, 'en'))
}
export default defineNuxtModule({
  meta: { name: 'help' },
  setup(_options, nuxt) {
    const getContents = () =>
      [
        "import type { GuidePage } from '../core/text/guidePages'",
        `export const GUIDE: readonly GuidePage[] = ${JSON.stringify(guidePages(nuxt.options.rootDir), null, 1)}`,
        '',
      ].join('\n')
    addTemplate({ filename: 'help.ts', getContents, write: true })
    nuxt.options.watch.push(`${GUIDE}/`)
  },
})
