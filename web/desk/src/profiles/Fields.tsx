import { OwnMark } from './OwnMark'
import { ChoiceSetting, NumberSetting, NumbersSetting, Setting, SwitchSetting } from './Setting'
import { inPieces, type Picture, type Profile, type Sound, words } from './settings'

interface Props {
  profile: Profile
  change: (profile: Profile) => void
  /** What a picture or a sound starts with when it is put in. */
  usual: { picture: Picture; sound: Sound }
}

/** All settings of a profile, as a sheet. */
export function Fields({ profile, change, usual }: Props) {
  const { picture, sound } = profile
  return (
    <>
      <Setting path="title">
        {(field) => (
          <input {...field} className={`${field.className} w-full`} value={profile.title} onChange={(e) => change({ ...profile, title: e.target.value })} />
        )}
      </Setting>
      <Setting path="description">
        {(field) => (
          <textarea
            {...field}
            rows={2}
            className={`${field.className} w-full resize-none`}
            value={profile.description}
            onChange={(e) => change({ ...profile, description: e.target.value })}
          />
        )}
      </Setting>
      <h2 className="mt-5">File</h2>
      <ChoiceSetting path="container" value={profile.container} options={words.container} take={(container) => change({ ...profile, container })} />
      <ChoiceSetting path="captions" value={profile.captions} options={words.captions} take={(captions) => change({ ...profile, captions })} />
      {profile.captions === 'burntIn' && (
        <Setting path="captionLanguage">
          {(field) => (
            <input
              {...field}
              className={`${field.className} w-28 font-mono`}
              placeholder="en-GB"
              value={profile.captionLanguage ?? ''}
              onChange={(e) => change({ ...profile, captionLanguage: e.target.value.trim() || null })}
            />
          )}
        </Setting>
      )}
      <SwitchSetting path="chapters" value={profile.chapters} take={(chapters) => change({ ...profile, chapters })} />
      <SwitchSetting path="indexAtFront" value={profile.indexAtFront} take={(indexAtFront) => change({ ...profile, indexAtFront })} />
      <h2 className="mt-5">Picture</h2>
      <SwitchSetting path="picture" value={picture !== null} take={(on) => change({ ...profile, picture: on ? usual.picture : null })} />
      {picture && <PictureFields picture={picture} inPieces={inPieces(profile)} change={(next) => change({ ...profile, picture: next })} />}
      <h2 className="mt-5">Sound</h2>
      <SwitchSetting path="sound" value={sound !== null} take={(on) => change({ ...profile, sound: on ? usual.sound : null })} />
      {sound && <SoundFields sound={sound} change={(next) => change({ ...profile, sound: next })} />}
    </>
  )
}

function PictureFields({ picture, inPieces, change }: { picture: Picture; inPieces: boolean; change: (picture: Picture) => void }) {
  const { size, timing, rate } = picture
  return (
    <>
      <ChoiceSetting path="picture.codec" value={picture.codec} options={words.codec} take={(codec) => change({ ...picture, codec })} />
      {picture.codec === 'h264' && (
        <>
          <ChoiceSetting
            path="picture.h264Profile"
            value={picture.h264Profile}
            options={words.h264Profile}
            take={(h264Profile) => change({ ...picture, h264Profile })}
          />
          <NumberSetting path="picture.level" value={picture.level} scale={10} empty="automatic" take={(level) => change({ ...picture, level })} />
        </>
      )}
      <ChoiceSetting
        path="picture.size.rule"
        value={size.rule}
        options={words.size}
        take={(rule) =>
          change({
            ...picture,
            size: { rule, width: rule === 'exact' ? (size.width ?? 1280) : null, height: rule === 'asCanvas' ? null : (size.height ?? 720) },
          })
        }
      />
      {size.rule === 'exact' && (
        <NumberSetting path="picture.size.width" value={size.width} take={(width) => change({ ...picture, size: { ...size, width } })} />
      )}
      {size.rule !== 'asCanvas' && (
        <NumberSetting path="picture.size.height" value={size.height} take={(height) => change({ ...picture, size: { ...size, height } })} />
      )}
      {(inPieces || (picture.furtherHeights?.length ?? 0) > 0) && (
        <NumbersSetting
          path="picture.furtherHeights"
          value={picture.furtherHeights ?? []}
          take={(heights) => change({ ...picture, furtherHeights: heights.length > 0 ? heights : null })}
        />
      )}
      <ChoiceSetting
        path="picture.timing.rule"
        value={timing.rule}
        options={words.timing}
        take={(rule) => change({ ...picture, timing: { rule, framesPerSecond: rule === 'constant' ? (timing.framesPerSecond ?? 30) : null } })}
      />
      {timing.rule === 'constant' && (
        <NumberSetting
          path="picture.timing.framesPerSecond"
          value={timing.framesPerSecond}
          take={(framesPerSecond) => change({ ...picture, timing: { ...timing, framesPerSecond } })}
        />
      )}
      <ChoiceSetting
        path="picture.rate.rule"
        value={rate.rule}
        options={words.rate}
        take={(rule) =>
          change({
            ...picture,
            rate: {
              rule,
              quality: rule === 'quality' ? (rate.quality ?? (picture.codec === 'h264' ? 20 : 32)) : null,
              ceilingBitsPerSecond: rule === 'quality' ? rate.ceilingBitsPerSecond : null,
              bitsPerSecond: rule === 'average' || rule === 'constant' ? (rate.bitsPerSecond ?? 300_000) : null,
              passes: rule === 'average' && picture.codec === 'av1' ? 1 : rate.passes,
              bytes: rule === 'fileSize' ? (rate.bytes ?? 20_000_000) : null,
            },
          })
        }
      />
      {rate.rule === 'quality' && (
        <>
          <NumberSetting path="picture.rate.quality" value={rate.quality} take={(quality) => change({ ...picture, rate: { ...rate, quality } })} />
          <NumberSetting
            path="picture.rate.ceilingBitsPerSecond"
            value={rate.ceilingBitsPerSecond}
            scale={1000}
            empty="none"
            take={(ceilingBitsPerSecond) => change({ ...picture, rate: { ...rate, ceilingBitsPerSecond } })}
          />
        </>
      )}
      {(rate.rule === 'average' || rate.rule === 'constant') && (
        <NumberSetting
          path="picture.rate.bitsPerSecond"
          value={rate.bitsPerSecond}
          scale={1000}
          take={(bitsPerSecond) => change({ ...picture, rate: { ...rate, bitsPerSecond } })}
        />
      )}
      {rate.rule === 'average' && (
        <NumberSetting path="picture.rate.passes" value={rate.passes} take={(passes) => change({ ...picture, rate: { ...rate, passes: passes ?? 2 } })} />
      )}
      {rate.rule === 'fileSize' && (
        <NumberSetting path="picture.rate.bytes" value={rate.bytes} scale={1_000_000} take={(bytes) => change({ ...picture, rate: { ...rate, bytes } })} />
      )}
      <NumberSetting
        path="picture.keyFrameSeconds"
        value={picture.keyFrameSeconds}
        empty="automatic"
        parts
        take={(keyFrameSeconds) => change({ ...picture, keyFrameSeconds })}
      />
      <ChoiceSetting path="picture.effort" value={picture.effort} options={words.effort} take={(effort) => change({ ...picture, effort })} />
      <SwitchSetting path="picture.copy" value={picture.copy} take={(copy) => change({ ...picture, copy })} />
      <SwitchSetting path="picture.houseMark" value={picture.houseMark} take={(houseMark) => change({ ...picture, houseMark })} />
      <OwnMark picture={picture} change={change} />
    </>
  )
}

function SoundFields({ sound, change }: { sound: Sound; change: (sound: Sound) => void }) {
  return (
    <>
      <ChoiceSetting path="sound.codec" value={sound.codec} options={words.soundCodec} take={(codec) => change({ ...sound, codec })} />
      <NumberSetting path="sound.sampleRate" value={sound.sampleRate} take={(sampleRate) => change({ ...sound, sampleRate: sampleRate ?? 48_000 })} />
      <ChoiceSetting path="sound.channels" value={sound.channels} options={words.channels} take={(channels) => change({ ...sound, channels })} />
      <NumberSetting
        path="sound.bitsPerSecond"
        value={sound.bitsPerSecond}
        scale={1000}
        empty="automatic"
        take={(bitsPerSecond) => change({ ...sound, bitsPerSecond })}
      />
      <NumberSetting path="sound.targetLufs" value={sound.targetLufs} empty="as it is" parts take={(targetLufs) => change({ ...sound, targetLufs })} />
    </>
  )
}
