import { addPart } from './parts'
import { findApi, inLearningSystem } from './runtimes/scorm12'

addPart({ runtimes: { scorm12: (lesson) => inLearningSystem(findApi(window), lesson, () => performance.now()) } })
