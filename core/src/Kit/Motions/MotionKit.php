<?php

declare(strict_types=1);

namespace CrispReel\Core\Kit\Motions;

use CrispReel\Core\Motion\Model\MotionRecipe;
use CrispReel\Core\Motion\Model\ScoreBook;
use CrispReel\Core\Motion\Scores\Pairs;

/** All motions of the house: names, words to find them by, and the recipe of each. */
final class MotionKit
{
    /** @var list<array{string, string, string, array<string, int|float|string>, list<string>}> slug, name, model, settings, tags */
    private const MODELS = [
        ['idle', 'Idle', 'idle', ['seed' => 3, 'seconds' => 16], ['idle', 'stand', 'wait', 'breathe', 'neutral']],
        ['walk', 'Walk', 'walk', ['speed' => 1.25], ['walk', 'travel', 'cycle', 'neutral']],
        ['walk-brisk', 'Walk, brisk', 'walk', ['speed' => 1.75, 'arm' => 1.15], ['walk', 'travel', 'hurry', 'busy', 'eager']],
        [
            'walk-tired', 'Walk, tired', 'walk', ['speed' => 0.75, 'lean' => 11, 'arm' => 0.6, 'age' => 0.35, 'mood' => -0.8],
            ['walk', 'tired', 'exhausted', 'weary', 'travel', 'sad'],
        ],
        ['walk-old', 'Walk, old', 'walk', ['speed' => 0.8, 'age' => 1.0, 'arm' => 0.7], ['walk', 'travel', 'old', 'stiff', 'careful']],
        [
            'walk-proud', 'Walk, proud', 'walk', ['speed' => 1.15, 'lean' => -5, 'mood' => 1.0, 'arm' => 1.35, 'bounce' => 1.3],
            ['walk', 'travel', 'proud', 'happy', 'confident'],
        ],
        [
            'walk-heavy', 'Walk, heavy', 'walk', ['speed' => 1.0, 'weight' => 1.0, 'bounce' => 1.4],
            ['walk', 'travel', 'heavy', 'stomp', 'angry'],
        ],
        [
            'sneak', 'Sneak', 'walk', ['speed' => 0.6, 'sneak' => 1.0, 'arm' => 0.3],
            ['sneak', 'walk', 'travel', 'creep', 'secret', 'afraid', 'quiet'],
        ],
        [
            'walk-crouched', 'Walk, crouched', 'walk', ['speed' => 0.9, 'crouch' => 1.0, 'arm' => 0.6],
            ['walk', 'travel', 'crouch', 'hide', 'duck'],
        ],
        ['limp', 'Limp', 'walk', ['speed' => 0.8, 'limp' => 1.0, 'arm' => 0.6], ['limp', 'walk', 'travel', 'hurt', 'pain', 'tired']],
        [
            'walk-carrying', 'Walk, carrying a box', 'walk', ['speed' => 1.0, 'weight' => 0.6, 'hold' => 'box'],
            ['carry', 'walk', 'travel', 'box', 'work', 'heavy'],
        ],
        [
            'walk-tray', 'Walk, carrying a tray', 'walk', ['speed' => 1.05, 'bounce' => 0.5, 'hold' => 'tray'],
            ['carry', 'walk', 'travel', 'tray', 'serve', 'careful'],
        ],
        [
            'push-cart', 'Push a cart', 'walk', ['speed' => 0.95, 'lean' => 8, 'weight' => 0.6, 'hold' => 'cart'],
            ['push', 'cart', 'walk', 'travel', 'work'],
        ],
        ['jog', 'Jog', 'walk', ['speed' => 2.35], ['jog', 'run', 'travel', 'cycle', 'exercise']],
        ['run', 'Run', 'walk', ['speed' => 2.8], ['run', 'travel', 'hurry', 'chase', 'cycle', 'flee']],
        [
            'run-fast', 'Run, fast', 'walk', ['speed' => 3.2, 'lean' => 3],
            ['run', 'sprint', 'flee', 'escape', 'away', 'travel', 'afraid', 'chase'],
        ],
        [
            'flee', 'Flee, looking back', 'walk', ['speed' => 3.0, 'lean' => 4, 'lookBack' => 1.0],
            ['flee', 'run', 'escape', 'away', 'chase', 'afraid', 'scared', 'look', 'back', 'travel'],
        ],
        [
            'walk-to-mark', 'Walk to a mark', 'walkToMark', ['speed' => 1.2, 'metres' => 3.0],
            ['walk', 'travel', 'start', 'stop', 'mark', 'arrive'],
        ],
        ['start-walking', 'One step and on', 'walkToMark', ['speed' => 1.2, 'metres' => 1.2], ['start', 'stop', 'walk', 'travel', 'step']],
        [
            'lead-by-hand', 'Lead by the hand', 'walk', ['speed' => 0.95, 'arm' => 0.45],
            ['lead', 'walk', 'together', 'child', 'pair', 'travel'],
        ],
        [
            'led-by-hand', 'Be led by the hand', 'walk', ['speed' => 0.95, 'arm' => 0.4, 'led' => 1, 'side' => 1],
            ['led', 'lead', 'follow', 'walk', 'together', 'pair', 'travel'],
        ],
        [
            'carry-somebody', 'Carry somebody', 'walk', ['speed' => 0.85, 'weight' => 0.7, 'bounce' => 0.6, 'hold' => 'person'],
            ['carry', 'arms', 'rescue', 'lift', 'walk', 'together', 'pair', 'travel'],
        ],
        ['talk', 'Talk', 'talk', ['seed' => 5, 'seconds' => 6], ['talk', 'speak', 'gesture', 'argue', 'eager', 'happy']],
        [
            'talk-calm', 'Talk, calm', 'talk', ['seed' => 11, 'seconds' => 6, 'energy' => 0.55],
            ['talk', 'speak', 'gesture', 'calm', 'explain'],
        ],
        ['wave', 'Wave', 'wave', [], ['wave', 'greet', 'hello', 'goodbye', 'say', 'call', 'happy']],
        ['hand-over', 'Hand over', 'handOver', [], ['give', 'hand over', 'pass', 'pair']],
        ['get-on', 'Get on', 'mount', ['way' => 'on'], ['get on', 'mount', 'ride', 'bicycle', 'boat', 'sit', 'climb', 'board']],
        ['get-off', 'Get off', 'mount', ['way' => 'off'], ['get off', 'dismount', 'ride', 'bicycle', 'boat', 'climb', 'out', 'leave']],
        ['wait-on', 'Wait, one foot down', 'mount', ['way' => 'wait'], ['wait', 'ride', 'bicycle', 'boat', 'seat']],
        ['receive', 'Receive', 'receive', [], ['take', 'receive', 'accept', 'pair']],
    ];

    /** @var list<array{string, string, list<string>}> score, name, tags */
    private const SCORES = [
        ['idleTired', 'Idle, tired', ['idle', 'stand', 'wait', 'tired', 'sad']],
        ['idleImpatient', 'Idle, impatient', ['idle', 'stand', 'wait', 'impatient', 'angry', 'bored']],
        ['idleCold', 'Idle, cold', ['idle', 'stand', 'wait', 'cold', 'shiver', 'afraid']],
        ['idleProud', 'Idle, proud', ['idle', 'stand', 'wait', 'proud', 'confident', 'happy']],
        ['lookAround', 'Look around', ['look', 'search', 'curious', 'nervous']], ['point', 'Point', ['point', 'show', 'there']],
        ['beckon', 'Beckon', ['beckon', 'come', 'here', 'call']], ['shrug', 'Shrug', ['shrug', 'unsure', 'perhaps']],
        ['shakeHead', 'Shake the head', ['no', 'shake', 'refuse', 'head']],
        ['listen', 'Listen and nod', ['listen', 'nod', 'yes', 'agree']],
        ['think', 'Think', ['think', 'wonder', 'idea']], ['scratchHead', 'Scratch the head', ['scratch', 'head', 'puzzled', 'think']],
        ['lookAtWatch', 'Look at the watch', ['watch', 'time', 'late', 'impatient']], ['callOut', 'Call out', ['call', 'shout', 'loud']],
        ['whisper', 'Whisper', ['whisper', 'secret', 'quiet', 'talk']], ['bow', 'Bow', ['bow', 'greet', 'polite', 'thank']],
        ['clap', 'Clap', ['clap', 'applaud', 'happy']],
        ['sitDown', 'Sit down', ['sit', 'seat', 'rest']], ['sitIdle', 'Sit', ['sit', 'idle', 'wait', 'seated']],
        ['sitTalk', 'Sit and talk', ['sit', 'talk', 'seated', 'speak']], ['standUp', 'Stand up', ['stand', 'rise', 'seat']],
        ['lean', 'Lean', ['lean', 'idle', 'wait', 'relaxed']],
        ['turn45Left', 'Turn left, 45 degrees', ['turn', 'left']], ['turn45Right', 'Turn right, 45 degrees', ['turn', 'right']],
        ['turn90Left', 'Turn left', ['turn', 'left']], ['turn90Right', 'Turn right', ['turn', 'right']],
        ['turn180Left', 'Turn round, left', ['turn', 'round', 'left']], ['turn180Right', 'Turn round, right', ['turn', 'round', 'right']],
        ['stepUp', 'Step up', ['step', 'up', 'stairs', 'travel']], ['stepDown', 'Step down', ['step', 'down', 'stairs', 'travel']],
        ['laugh', 'Laugh', ['laugh', 'happy', 'joy']], ['cry', 'Cry', ['cry', 'sad', 'weep']],
        ['cheer', 'Cheer', ['cheer', 'happy', 'win', 'joy', 'jump']], ['talkAngry', 'Talk, angry', ['talk', 'speak', 'angry', 'scold']],
        ['talkSad', 'Talk, sad', ['talk', 'speak', 'sad', 'sorry']],
        ['danceStep', 'Dance, side to side', ['dance', 'happy', 'party', 'cycle']],
        ['danceTurn', 'Dance, turning', ['dance', 'turn', 'happy', 'waltz']],
        ['kneel', 'Kneel', ['kneel', 'down', 'ask']], ['kneelUp', 'Rise from a knee', ['kneel', 'rise', 'up']],
        ['crouch', 'Crouch', ['crouch', 'hide', 'down', 'squat']],
        ['crouchIdle', 'Crouch and wait', ['crouch', 'hide', 'idle', 'afraid']],
        ['crouchUp', 'Rise from a crouch', ['crouch', 'rise', 'up']], ['lieDown', 'Lie down', ['lie', 'sleep', 'down']],
        ['lieIdle', 'Lie', ['lie', 'sleep', 'rest', 'idle']], ['getUp', 'Get up', ['get up', 'rise', 'stand', 'up']],
        ['jump', 'Jump', ['jump', 'leap', 'travel']], ['jumpDown', 'Jump down 60 cm and land', ['jump', 'down', 'land', 'travel']],
        ['trip', 'Trip', ['trip', 'stumble', 'travel', 'clumsy']], ['fall', 'Fall', ['fall', 'down', 'hurt', 'faint']],
        ['crawl', 'Crawl', ['crawl', 'travel', 'hide', 'cycle']], ['climb', 'Climb a ladder', ['climb', 'ladder', 'up']],
        ['pickUpFloor', 'Pick up from the floor', ['pick up', 'take', 'floor', 'find']],
        ['pickUpTable', 'Pick up from a table', ['pick up', 'take', 'table']], ['putDown', 'Put down', ['put down', 'table', 'leave']],
        ['liftBox', 'Lift a box', ['lift', 'box', 'heavy', 'work']], ['carryIdle', 'Stand with a box', ['carry', 'box', 'idle', 'wait']],
        ['throw', 'Throw', ['throw', 'toss']], ['catch', 'Catch', ['catch', 'receive']],
        ['pullRope', 'Pull a rope', ['pull', 'rope', 'work', 'cycle']], ['ringBell', 'Ring a bell', ['ring', 'bell', 'pull', 'cycle']],
        ['row', 'Row', ['row', 'boat', 'oars', 'work', 'cycle']], ['ride', 'Ride a bicycle', ['ride', 'bicycle', 'pedal', 'cycle']],
        ['drive', 'Drive', ['drive', 'steer', 'wheel', 'car']],
        ['write', 'Write', ['write', 'table', 'sit', 'note']], ['read', 'Read', ['read', 'book', 'letter']],
        ['drink', 'Drink', ['drink', 'cup', 'glass']], ['sweep', 'Sweep', ['sweep', 'broom', 'clean', 'work', 'cycle']],
        ['knock', 'Knock', ['knock', 'door', 'visit']], ['openDoor', 'Open a door', ['open', 'door', 'enter']],
        ['hugA', 'Hug', ['hug', 'embrace', 'love', 'pair', 'happy']],
        ['hugB', 'Hug, the other', ['hug', 'embrace', 'love', 'pair', 'happy']],
        ['shakeHandsA', 'Shake hands', ['shake', 'hands', 'handshake', 'greet', 'pair']],
        ['shakeHandsB', 'Shake hands, the other', ['shake', 'hands', 'greet', 'pair']],
        ['argueA', 'Argue', ['argue', 'quarrel', 'angry', 'pair', 'talk']],
        ['argueB', 'Argue, the other', ['argue', 'quarrel', 'angry', 'pair', 'talk']],
        ['pushA', 'Push someone', ['push', 'shove', 'angry', 'pair', 'fight']],
        ['pushB', 'Be pushed', ['push', 'shove', 'stumble', 'pair', 'fight']],
        ['slapA', 'Slap', ['slap', 'hit', 'smack', 'angry', 'pair', 'fight']],
        ['slapB', 'Be slapped', ['slap', 'hit', 'hurt', 'pair', 'fight']],
        ['punchA', 'Punch', ['punch', 'hit', 'fight', 'beat', 'beat up', 'fist', 'angry', 'pair']],
        ['punchB', 'Be punched', ['punch', 'hit', 'hurt', 'pair', 'fight']],
        ['dodgeA', 'Punch and miss', ['punch', 'miss', 'hit', 'pair', 'fight']],
        ['dodgeB', 'Dodge a punch', ['dodge', 'duck', 'avoid', 'pair', 'fight']],
        ['shoveA', 'Shove with one hand', ['shove', 'push', 'angry', 'pair', 'fight']],
        ['shoveB', 'Be shoved', ['shove', 'push', 'stumble', 'pair', 'fight']],
        ['grabWristA', 'Grab a wrist and pull', ['grab', 'hold', 'pull', 'wrist', 'drag', 'pair', 'fight']],
        ['grabWristB', 'Be pulled by the wrist', ['grab', 'pull', 'wrist', 'pair', 'fight']],
        ['kissCheekA', 'Kiss on the cheek', ['kiss', 'cheek', 'love', 'greet', 'pair', 'happy']],
        ['kissCheekB', 'Be kissed on the cheek', ['kiss', 'cheek', 'love', 'pair', 'happy']],
        ['whisperEarA', 'Whisper in the ear', ['whisper', 'secret', 'ear', 'talk', 'pair', 'quiet']],
        ['whisperEarB', 'Be whispered to', ['whisper', 'secret', 'ear', 'listen', 'pair']],
        ['highClapA', 'Clap hands up high', ['clap', 'hands', 'high five', 'win', 'greet', 'pair', 'happy']],
        ['highClapB', 'Clap hands up high, the other', ['clap', 'hands', 'win', 'greet', 'pair', 'happy']],
        ['patShoulderA', 'Pat a shoulder', ['pat', 'shoulder', 'comfort', 'praise', 'pair']],
        ['patShoulderB', 'Be patted', ['pat', 'shoulder', 'comfort', 'pair']],
        ['takeArmA', 'Take by the arm', ['take', 'arm', 'hold', 'comfort', 'talk', 'pair']],
        ['takeArmB', 'Be taken by the arm', ['take', 'arm', 'comfort', 'listen', 'pair']],
        ['danceTogetherA', 'Dance together, turning', ['dance', 'waltz', 'turn', 'love', 'party', 'pair', 'happy']],
        ['danceTogetherB', 'Dance together, the other', ['dance', 'waltz', 'turn', 'love', 'party', 'pair', 'happy']],
        ['threaten', 'Threaten', ['threaten', 'fist', 'shake', 'angry', 'menace', 'talk']],
        ['surrender', 'Hands up', ['surrender', 'hands up', 'give up', 'afraid', 'caught']],
        ['flinch', 'Flinch', ['flinch', 'wince', 'afraid', 'scared', 'startled', 'shield']],
        ['duckDown', 'Duck', ['duck', 'cover', 'take', 'afraid', 'scared', 'down']],
        ['hide', 'Hide behind cover', ['hide', 'cover', 'crouch', 'afraid', 'scared', 'peek', 'cycle']],
        ['coverEars', 'Cover the ears', ['cover', 'ears', 'noise', 'loud', 'pain']],
        ['coverEyes', 'Cover the eyes', ['cover', 'eyes', 'hide', 'afraid', 'count', 'sad']],
        ['stagger', 'Stagger', ['stagger', 'dizzy', 'drunk', 'hurt', 'tired', 'exhausted', 'travel']],
        ['crawlWounded', 'Crawl, wounded', ['crawl', 'wounded', 'hurt', 'drag', 'pain', 'travel', 'cycle']],
        ['faint', 'Faint', ['faint', 'collapse', 'pass out', 'swoon', 'fall', 'sick']],
        ['dieBack', 'Die, falling back', ['die', 'death', 'dead', 'shot', 'fall', 'killed']],
        ['dieKneeling', 'Die, on the knees', ['die', 'death', 'dead', 'kneel', 'fall', 'killed']],
        ['dieAside', 'Die, falling aside', ['die', 'death', 'dead', 'fall', 'killed']],
        ['shy', 'Be shy', ['shy', 'bashful', 'embarrassed', 'ashamed', 'idle', 'stand', 'cycle']],
        ['waitNervously', 'Wait nervously', ['wait', 'nervous', 'worried', 'anxious', 'idle', 'stand', 'cycle']],
        ['thinkHard', 'Think, hand on the chin', ['think', 'ponder', 'wonder', 'idle', 'stand', 'cycle']],
        ['lookThroughWindow', 'Look through a window', ['look', 'window', 'peer', 'spy', 'curious', 'cycle']],
        ['stretch', 'Stretch', ['stretch', 'tired', 'wake', 'morning']], ['yawn', 'Yawn', ['yawn', 'tired', 'sleepy', 'bored']],
        ['cough', 'Cough', ['cough', 'sick', 'ill', 'smoke']], ['sneeze', 'Sneeze', ['sneeze', 'sick', 'ill', 'cold']],
        ['warmHands', 'Warm the hands', ['warm', 'hands', 'cold', 'freeze', 'rub', 'winter', 'cycle']],
        ['wipeBrow', 'Wipe the brow', ['wipe', 'brow', 'sweat', 'hot', 'tired', 'exhausted', 'relieved']],
        ['phoneTalk', 'Telephone, talking', ['phone', 'telephone', 'call', 'talk', 'cycle']],
        ['phoneListen', 'Telephone, listening', ['phone', 'telephone', 'call', 'listen', 'cycle']],
        ['phoneType', 'Telephone, typing', ['phone', 'type', 'write', 'message', 'text', 'cycle']],
        ['takePicture', 'Take a picture', ['picture', 'photograph', 'camera', 'tourist']],
        ['eat', 'Eat', ['eat', 'meal', 'food', 'hungry', 'cycle']],
        ['sleepSitting', 'Sleep, seated', ['sleep', 'sit', 'seated', 'tired', 'doze', 'cycle']],
        ['wakeSitting', 'Wake, seated', ['wake', 'up', 'sit', 'seated', 'morning']],
        ['sitCrossed', 'Sit, arms folded', ['sit', 'seated', 'wait', 'angry', 'bored', 'idle', 'cycle']],
        ['sitForward', 'Sit, leaning forward', ['sit', 'seated', 'listen', 'worried', 'idle', 'cycle']],
        ['sitSlumped', 'Sit, slumped', ['sit', 'seated', 'tired', 'exhausted', 'lazy', 'bored', 'idle', 'cycle']],
        ['pointAndLaugh', 'Point and laugh', ['point', 'laugh', 'mock', 'tease', 'happy']],
        ['salute', 'Salute', ['salute', 'greet', 'soldier', 'captain', 'polite']],
        ['shrugOff', 'Shrug it off', ['shrug', 'refuse', 'whatever', 'turn away', 'bored']],
        ['dig', 'Dig', ['dig', 'spade', 'garden', 'work', 'cycle']],
        ['paint', 'Paint', ['paint', 'brush', 'easel', 'art', 'work', 'cycle']],
        ['hangPicture', 'Hang a picture', ['hang', 'picture', 'wall', 'work']],
        ['cook', 'Cook at a stove', ['cook', 'stir', 'stove', 'kitchen', 'taste', 'work', 'cycle']],
        ['playFiddle', 'Play a fiddle', ['play', 'fiddle', 'violin', 'music', 'cycle']],
        ['playDrum', 'Play a drum', ['play', 'drum', 'music', 'beat', 'cycle']],
        ['kickBall', 'Kick a ball', ['kick', 'ball', 'football', 'play', 'shoot']],
        ['fenceStick', 'Fence with a stick', ['fence', 'stick', 'staff', 'sword', 'fight', 'duel', 'cycle']],
        ['climbOverWall', 'Climb over a low wall', ['climb', 'wall', 'over', 'fence', 'boat', 'travel']],
        ['slip', 'Slip and sit down hard', ['slip', 'fall', 'ice', 'clumsy', 'hurt']],
        ['swim', 'Swim', ['swim', 'water', 'sea', 'travel', 'cycle']],
        ['stepBack', 'Step back', ['step', 'back', 'retreat', 'travel']],
        ['stepAsideLeft', 'Step aside, left', ['step', 'aside', 'left', 'travel']],
        ['stepAsideRight', 'Step aside, right', ['step', 'aside', 'right', 'travel']],
        ['squeezeThroughLeft', 'Go through a narrow gap, facing left', ['narrow', 'gap', 'squeeze', 'sideways', 'left', 'travel']],
        ['squeezeThroughRight', 'Go through a narrow gap, facing right', ['narrow', 'gap', 'squeeze', 'sideways', 'right', 'travel']],
        ['throwToA', 'Throw to somebody', ['throw', 'toss', 'give', 'ball', 'play', 'pair']],
        ['throwToB', 'Catch from somebody', ['catch', 'take', 'receive', 'ball', 'play', 'pair']],
        ['beCarried', 'Be carried', ['carry', 'carried', 'arms', 'rescue', 'hurt', 'sleep', 'pair', 'cycle']],
        ['helpUpA', 'Help up', ['help', 'up', 'pull', 'comfort', 'pair']],
        ['helpUpB', 'Be helped up', ['help', 'get up', 'rise', 'sit', 'floor', 'pair']],
    ];

    /** @return list<array{slug: string, name: string, recipe: MotionRecipe, tags: list<string>}> */
    public static function all(): array
    {
        $out = [];
        foreach (self::MODELS as [$slug, $name, $model, $settings, $tags]) {
            $out[] = ['slug' => $slug, 'name' => $name, 'recipe' => new MotionRecipe($model, $settings), 'tags' => $tags];
        }
        foreach (self::SCORES as [$score, $name, $tags]) {
            $settings = ['score' => $score, 'seed' => 3 + strlen($score)];
            $gap = Pairs::GAPS[substr($score, 0, -1)] ?? null;
            $settings += $gap === null ? [] : ['gap' => $gap];
            // What is taken harder or softer has a number for it.
            $settings += isset(ScoreBook::all()[$score]['reacts']) ? ['strength' => 1.0] : [];
            $out[] = [
                'slug' => strtolower((string) preg_replace('/(?<=[a-z])(?=[A-Z])|(?<=[a-z])(?=\d)|(?<=\d)(?=[A-Z])/', '-', $score)),
                'name' => $name,
                'recipe' => new MotionRecipe('act', $settings),
                'tags' => $tags,
            ];
        }

        return $out;
    }

    /**
     * The other half of what two people do together.
     *
     * @return string|null its slug; null where a motion is no half
     */
    public static function otherHalf(string $slug): ?string
    {
        foreach ([['hand-over', 'receive'], ['lead-by-hand', 'led-by-hand'], ['carry-somebody', 'be-carried']] as [$one, $other]) {
            if ($slug === $one || $slug === $other) {
                return $slug === $one ? $other : $one;
            }
        }
        $pair = substr($slug, 0, -2);
        $other = ['-a' => '-b', '-b' => '-a'][substr($slug, -2)] ?? null;
        $name = lcfirst(str_replace(' ', '', ucwords(str_replace('-', ' ', $pair))));

        return $other !== null && isset(Pairs::GAPS[$name]) ? $pair.$other : null;
    }
}
