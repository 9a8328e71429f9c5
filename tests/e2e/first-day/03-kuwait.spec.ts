// Dinars have three decimals, and nothing is taxed.
import { firmElsewhere } from './elsewhere'

firmElsewhere({
  ...{ country: 'Kuwait', timeZone: 'Asia/Kuwait', rate: '0', hour: '12.5' },
  ...{ says: /KWD\s?12\.500(?!\d)/, day: /Tue,? 24 Nov/ },
})
