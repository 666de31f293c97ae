import './over.css'
import './survey/survey.css'
import { addPart } from './parts'
import { survey } from './survey/survey'

addPart({ start: survey })
