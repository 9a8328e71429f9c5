// Yen have no decimals, and the tax is inside the prices.
import { firmElsewhere } from './elsewhere'

firmElsewhere({
  ...{ country: 'Japan', timeZone: 'Asia/Tokyo', rate: '10', hour: '8800' },
  ...{ says: /¥\s?8,800(?![.\d])/, day: /Tue,? 24 Nov/ },
})
