import { flushPromises, mount } from '@vue/test-utils'
import { beforeEach, expect, it, vi } from 'vitest'
import { changeCircuit, keepCircuitForModel } from '@/api/calls'
import { ApiError, type Schemas } from '@/api/client'
import UnitDiffers from '@/features/string/UnitDiffers.vue'

vi.mock('@/api/calls', () => ({ changeCircuit: vi.fn(), keepCircuitForModel: vi.fn() }))
const string = (own = false) =>
  ({
    own,
    known: true,
    circuits: [{ key: 'boiler', name: 'Boiler' }],
    parts: [{ key: 'limit', name: 'Limit' }],
    nodes: [{ key: '3', name: 'after the limit' }],
    devices: [{ key: 'fuse', name: 'fuse' }],
  }) as unknown as Schemas['StringOut']
const show = (own = false, decides = false) =>
  mount(UnitDiffers, { props: { id: 7, string: string(own), decides } })

beforeEach(() => {
  vi.mocked(changeCircuit).mockReset()
  vi.mocked(keepCircuitForModel).mockReset()
})

it('puts in a device that was found, before or behind a part', async () => {
  const sheet = show()
  expect(sheet.get('.strong').attributes('disabled')).toBeDefined()
  const [device, stands, part] = sheet.findAll('select')
  await device!.setValue('fuse')
  await stands!.setValue('behind')
  await part!.setValue('limit')
  await sheet.get('input').setValue('Inline fuse')
  await sheet.get('.strong').trigger('click')
  await flushPromises()
  const made = { what: 'insert', at: 'limit', family: 'fuse', name: 'Inline fuse', behind: true }
  expect(changeCircuit).toHaveBeenCalledWith(7, { change: made })
  expect(sheet.emitted('changed')).toHaveLength(1)
})

it('names a node by its wire, and moves a wire', async () => {
  const sheet = show()
  const way = (name: string) => sheet.findAll('button').find((b) => b.text() === name)!
  await way('Name a node').trigger('click')
  await sheet.get('select').setValue('3')
  await sheet.get('input').setValue('yellow, pin 4')
  await sheet.get('.strong').trigger('click')
  await flushPromises()
  await way('Move a wire').trigger('click')
  const [part, end, node] = sheet.findAll('select')
  await part!.setValue('limit')
  await end!.setValue('1')
  await node!.setValue('3')
  await sheet.get('.strong').trigger('click')
  await flushPromises()
  expect(vi.mocked(changeCircuit).mock.calls.map(([, body]) => body.change)).toEqual([
    { what: 'name', node: '3', name: 'yellow, pin 4' },
    { what: 'move', part: 'limit', end: 1, node: '3' },
  ])
})

it('shows why a change was refused, and keeps what was typed', async () => {
  vi.mocked(changeCircuit).mockRejectedValue(new ApiError(422, 'short', 'a short across a source'))
  const sheet = show()
  const [device, , part] = sheet.findAll('select')
  await device!.setValue('fuse')
  await part!.setValue('limit')
  await sheet.get('input').setValue('Fuse')
  await sheet.get('.strong').trigger('click')
  await flushPromises()
  expect(sheet.get('[role=alert]').text()).toContain('short across')
  expect((sheet.get('input').element as HTMLInputElement).value).toBe('Fuse')
  expect(sheet.emitted('changed')).toBeUndefined()
})

it('offers it for the model to who decides, once there is something to keep', async () => {
  const words = (own: boolean, decides: boolean) => show(own, decides).text()
  expect(words(true, false)).not.toContain('Keep for every unit')
  expect(words(false, true)).not.toContain('Keep for every unit')
  const sheet = show(true, true)
  await sheet.findAll('.link').at(-1)!.trigger('click')
  await flushPromises()
  expect(keepCircuitForModel).toHaveBeenCalledWith(7)
})

it('lets another circuit be chosen, and nothing else where none is known', async () => {
  const props = { id: 7, string: { ...string(), known: false }, decides: false }
  const sheet = mount(UnitDiffers, { props })
  expect(sheet.text()).not.toContain('Put in a device')
  await sheet.get('select').setValue('boiler')
  await sheet.get('.strong').trigger('click')
  await flushPromises()
  expect(changeCircuit).toHaveBeenCalledWith(7, { change: { what: 'choose', key: 'boiler' } })
})
