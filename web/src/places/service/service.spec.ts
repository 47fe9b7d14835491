import { effectScope } from 'vue'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { clientOver, fresh, kept, refused, wire, type Loose } from '@/testing'
import { useService, type ServiceDraft } from './service'

vi.mock('@/api/client', async (original) => clientOver(await original<object>()))
const { asked } = wire

const document = { name: 'Lunch', lines: [{ dish: '1', portions: 10 }] }
const row = (change: Loose = {}) => ({ id: 7, revision: 1, document, pinned: { '3': 2 }, ...change })
const worked = (service: Loose) => ({ status: 200, body: { plan: { service }, production: {}, changed: [] } })
/** A server that works out whatever it is sent, and keeps what is saved. */
function server(path: string, body: Loose): { status: number; body: unknown } {
  if (path === '/api/services/{service_id}') {
    return { status: 200, body: body.document ? row({ document: body.document, revision: body.revision + 1 }) : row() }
  }
  if (path === '/api/services/flow') {
    const lines = body.document.lines.map((line: Loose) => ({ ...line, portions: 2 * line.portions }))
    return worked({ ...body.document, lines })
  }
  return worked(body.document)
}

let service: ServiceDraft
const scope = effectScope()
beforeEach(async () => {
  fresh()
  wire.answer = server
  service = scope.run(() => useService())!
  await service.open(7)
})
afterEach(() => vi.unstubAllGlobals())

const portions = () => (service.doc.value.lines as Loose[])[0]!.portions
const set = (value: unknown) => (doc: Loose) => (doc.lines[0].portions = value)

describe('the service being planned', () => {
  it('is worked out with the versions its sauces are pinned at', async () => {
    await service.edit(set(12))
    expect(asked.at(-1)).toMatchObject({
      path: '/api/services/work',
      body: { document: { ...document, lines: [{ dish: '1', portions: 12 }] }, pinned: { '3': 2 } },
    })
    expect(service.dirty.value).toBe(true)
  })
  it('keeps what was refused in its field while the last plan stands', async () => {
    wire.answer = () => refused('lines[0].portions')
    await service.edit(set('many'))
    expect(portions()).toBe('many')
    expect(service.problemAt('lines[0]')?.message).toBe('is wrong')
    expect(service.problemAt('lines[1]')).toBeNull()
    expect((service.plan.value!.service.lines as Loose[])[0]!.portions).toBe(10)
    expect(await service.save()).toBeNull()
  })
  it('plans the rest while an entry cannot be read, and keeps what was typed there', async () => {
    const bad = { field: 'lines[0].portions', code: 'x', message: 'is wrong', remedy: 'Mend it' }
    wire.answer = (_, body) => {
      const lines = [{ dish: '-', portions: 1 }]
      const rest = { plan: { service: { ...body.document, lines } }, production: {}, changed: [], unread: [bad] }
      return { status: 200, body: rest }
    }
    await service.edit(set('many'))
    expect(portions()).toBe('many')
    expect(service.plan.value!.service.lines).toEqual([{ dish: '-', portions: 1 }])
    expect(service.problemAt('lines[0]')?.message).toBe('is wrong')
    expect(service.dirty.value).toBe(true)
    expect(await service.save()).toBeNull()
    wire.answer = server
    await service.edit(set(12))
    expect(portions()).toBe(12)
    service.undo()
    await vi.waitFor(() => expect(portions()).toBe(10))
  })
  it('takes typing in one field as one undo, and a flow as another', async () => {
    await service.edit(set(1), '0.portions')
    await service.edit(set(14), '0.portions')
    await service.flow('mother-1', 3000)
    expect(portions()).toBe(28)
    service.undo()
    await vi.waitFor(() => expect(portions()).toBe(14))
    service.undo()
    await vi.waitFor(() => expect(portions()).toBe(10))
    service.redo()
    await vi.waitFor(() => expect(portions()).toBe(14))
    expect(service.past.value).toHaveLength(1)
  })
  it('keeps nothing here while nothing is changed', async () => {
    expect(service.dirty.value).toBe(false)
    expect(kept.size).toBe(0)
  })
  it('sends only the newest of what is typed while it waits', async () => {
    let release = () => {}
    const gate = new Promise<void>((resolve) => (release = resolve))
    wire.answer = async (path, body) => {
      await gate
      return server(path, body)
    }
    const before = asked.length
    const done = [11, 12, 13].map((n) => service.edit(set(n), 'p'))
    release()
    await Promise.all(done)
    expect(asked.length - before).toBe(2)
    expect(portions()).toBe(13)
  })
  it('saves with its revision and forgets what it kept here', async () => {
    await service.edit(set(20))
    expect(kept.has('kestrel.service.7')).toBe(true)
    expect(await service.save()).not.toBeNull()
    expect(asked.at(-1)?.body.revision).toBe(1)
    expect(service.stored.value?.base).toBe(2)
    expect(service.dirty.value).toBe(false)
    expect(kept.has('kestrel.service.7')).toBe(false)
  })
  it('brings unsaved changes back after a reload, on the revision they were made from', async () => {
    await service.edit(set(33))
    const again = scope.run(() => useService())!
    wire.answer = (path, body) =>
      path === '/api/services/{service_id}' && !body.document
        ? { status: 200, body: row({ revision: 5 }) }
        : server(path, body)
    await again.open(7)
    expect((again.doc.value.lines as Loose[])[0]!.portions).toBe(33)
    expect(again.stored.value?.base).toBe(1)
  })
  it('tells of another window, and puts ours in its place or takes theirs', async () => {
    await service.edit(set(20))
    const theirs = { ...document, name: 'Dinner' }
    wire.answer = (path, body) =>
      path === '/api/services/{service_id}' && body.document && body.revision !== 4
        ? { status: 409, body: { message: 'Saved meanwhile.', document: theirs, revision: 4 } }
        : server(path, body)
    expect(await service.save()).toBeNull()
    expect(service.conflict.value!.document.name).toBe('Dinner')
    expect(await service.save(true)).not.toBeNull()
    expect(asked.at(-1)?.body.revision).toBe(4)
    expect(service.conflict.value).toBeNull()
  })
  it('takes the newest version of a sauce without losing what is typed', async () => {
    await service.edit(set(21))
    wire.answer = (path, body) =>
      path.endsWith('/renew') ? { status: 200, body: row({ revision: 2, pinned: { '3': 5 } }) } : server(path, body)
    await service.renew(3)
    expect(asked.at(-1)?.body.pinned).toEqual({ '3': 5 })
    expect(portions()).toBe(21)
    expect(service.dirty.value).toBe(true)
  })
  it('says when the server does not answer', async () => {
    wire.answer = () => Promise.reject(new Error('down'))
    await service.edit(set(9))
    expect(service.trouble.value).toContain('does not answer')
    expect(portions()).toBe(9)
  })
})
