import {
  Chart,
  Filler,
  Legend,
  LinearScale,
  LineElement,
  LogarithmicScale,
  PointElement,
  Tooltip,
} from "chart.js";
import { TEXT_FONT } from "./theme";

/** What the charts of the application are made of; importing this is enough. */
Chart.register(LinearScale, LogarithmicScale, LineElement, PointElement, Tooltip, Legend, Filler);
Chart.defaults.font.family = TEXT_FONT;
Chart.defaults.plugins.legend.display = false;
