// The map: where visits and people are, and who is nearest.
import { number } from 'yup'
import { date, flag, id, instant, int, list, obj, ok, route, text, definedText } from '../schema'

export const place = obj({
  lat: number().min(-90).max(90).required(),
  lon: number().min(-180).max(180).required(),
})
const mapDay = obj({
  date: date().required(),
  roadsId: id().nullable().defined(),
  territories: list(obj({ id: id().required(), name: definedText(), people: list(definedText()) })),
  sites: list(
    obj({
      id: id().required(),
      customerId: id().required(),
      customer: definedText(),
      place: definedText(300),
      territoryId: id().nullable().defined(),
      lat: number().required(),
      lon: number().required(),
    }),
  ),
  technicians: list(
    obj({
      id: id().required(),
      name: definedText(),
      start: place.nullable().default(undefined),
      end: place.nullable().default(undefined),
      position: obj({
        lat: number().required(),
        lon: number().required(),
        at: instant().required(),
        old: flag().required(),
      })
        .nullable()
        .default(undefined),
      stops: list(
        obj({
          visitId: id().required(),
          lat: number().required(),
          lon: number().required(),
          state: definedText(),
          atRisk: flag().required(),
        }),
      ),
      route: list(list(number().required())),
    }),
  ),
  waiting: list(
    obj({
      visitId: id().required(),
      siteId: id().required(),
      title: definedText(),
      customer: definedText(),
      lat: number().required(),
      lon: number().required(),
    }),
  ),
  nowhere: int().required(),
})
const nearby = obj({
  items: list(
    obj({
      technicianId: id().required(),
      name: definedText(),
      driveSeconds: int().required(),
      from: definedText(200),
      freeAt: instant().required(),
      arriveAt: instant().required(),
      works: flag().required(),
      lacks: list(definedText()),
      foreign: flag().required(),
      now: definedText(300),
    }),
  ),
})

export const mapRoutes = {
  mapDay: route({
    method: 'GET',
    path: '/map',
    may: 'dispatch.see',
    summary: 'Sites, territories, routes of a day along the roads, and where technicians are',
    query: obj({ date: date() }),
    answer: mapDay,
  }),
  mapGround: route({
    method: 'GET',
    path: '/map/ground.geojson',
    may: 'dispatch.see',
    summary: 'The ground of the map: roads, waters and towns (RFC 7946)',
    mime: 'application/geo+json',
  }),
  nearest: route({
    method: 'POST',
    path: '/nearest',
    may: 'dispatch.plan',
    summary: 'Who could be at a site soonest, by drive time from where each is',
    body: obj({ siteId: id().required(), skills: list(text(60).defined()).default([]) }),
    answer: nearby,
  }),
  positionTrips: route({
    method: 'POST',
    path: '/positions/trips',
    who: 'signature',
    signedBy: 'positions',
    summary: 'For the positions device: where each technician drives at present, along the roads',
    answer: obj({
      now: instant().required(),
      trips: list(
        obj({
          personId: id().required(),
          from: instant().required(),
          to: instant().required(),
          line: list(list(number().required())),
        }),
      ),
    }),
  }),
  positions: route({
    method: 'POST',
    path: '/positions',
    who: 'signature',
    signedBy: 'positions',
    summary: 'Where technicians are, told by the positions device',
    body: obj({
      positions: list(
        obj({
          personId: id().required(),
          at: instant().required(),
          lat: number().min(-90).max(90).required(),
          lon: number().min(-180).max(180).required(),
        }),
      ).max(500),
    }),
    answer: ok,
  }),
}
