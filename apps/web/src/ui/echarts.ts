/** What charts are drawn with, in a file of its own that comes when the first is drawn. */
import { LineChart } from 'echarts/charts'
import { GridComponent, MarkLineComponent } from 'echarts/components'
import { init, use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'

use([LineChart, GridComponent, MarkLineComponent, SVGRenderer])

export { init }
