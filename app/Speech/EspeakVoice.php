<?php

declare(strict_types=1);

namespace App\Speech;

use CrispReel\Core\Format\Wave;
use CrispReel\Core\Speech\Ipa;
use CrispReel\Core\Speech\Phone;
use CrispReel\Core\Speech\Word;
use FFI;
use FFI\CData;

/**
 * Some hundred languages and accents by espeak-ng's library, in this process. Its voices are plain, but they read what no other
 * here can. Only for commands and queue workers.
 */
final class EspeakVoice implements Voice
{
    private const HEADER = <<<'C'
        typedef struct {
            int type; unsigned int unique_identifier; int text_position; int length; int audio_position; int sample; void* user_data;
            union { int number; const char* name; char string[8]; } id;
        } espeak_EVENT;
        typedef int (*reel_callback)(short*, int, espeak_EVENT*);
        int espeak_Initialize(int output, int buflength, const char* path, int options);
        void espeak_SetSynthCallback(reel_callback heard);
        int espeak_SetVoiceByName(const char* name);
        int espeak_SetParameter(int parameter, int value, int relative);
        int espeak_Synth(const char* text, size_t size, unsigned int position, int position_type, unsigned int end_position,
            unsigned int flags, unsigned int* unique_identifier, void* user_data);
        int espeak_Synchronize(void);
        C;

    private const LIBRARY = 'libespeak-ng.so.1';

    /** Wanted: sound and events in this thread, and sounds among the events. */
    private const IN_THIS_THREAD = 2;

    private const TELL_SOUNDS = 1;

    private const UTF8 = 1;

    private const PARAMETERS = ['rate' => 1, 'pitch' => 3, 'range' => 4];

    private const WORD = 1;

    private const END = 5;

    private const SOUND = 7;

    private static ?Library $espeak = null;

    private static int $rate = 22050;

    /** @var array{pcm: string, sounds: list<array{string, float}>, words: list<array{int, int, float}>} what was heard of this text */
    private static array $heard = ['pcm' => '', 'sounds' => [], 'words' => []];

    public function read(string $text, Manner $manner): Take
    {
        $espeak = self::espeak();

        if ($espeak->call('espeak_SetVoiceByName', $manner->base) !== 0) {
            throw new NoVoice("There is no voice \"{$manner->base}\" here.");
        }
        foreach ([
            'rate' => 165.0 * $manner->pace, 'pitch' => max(0.0, min(99.0, 50.0 + 65.0 * log($manner->pitch, 2))),
            'range' => max(0.0, min(99.0, 50.0 * $manner->range)),
        ] as $name => $value) {
            $espeak->call('espeak_SetParameter', self::PARAMETERS[$name], (int) round($value), 0);
        }
        self::$heard = ['pcm' => '', 'sounds' => [], 'words' => []];

        if ($espeak->call(
            'espeak_Synth', $text, strlen($text) + 1, 0, 1, 0, self::UTF8, null, null,
        ) !== 0 || $espeak->call('espeak_Synchronize') !== 0) {
            throw new NoVoice('The voice could not read it.');
        }

        return self::take($text);
    }

    private static function espeak(): Library
    {
        if (self::$espeak !== null) {
            return self::$espeak;
        }
        $espeak = Library::open(self::HEADER, self::LIBRARY, 'The voices of espeak-ng are not installed here.');
        $rate = $espeak->call('espeak_Initialize', self::IN_THIS_THREAD, 0, null, self::TELL_SOUNDS);
        if (! is_int($rate) || $rate < 1) {
            throw new NoVoice('The voices of espeak-ng have no data here.');
        }
        self::$rate = $rate;

        $espeak->call('espeak_SetSynthCallback', static function (?CData $samples, int $count, CData $events) use ($espeak): int {
            if ($samples !== null && $count > 0) {
                self::$heard['pcm'] .= $espeak->bytes($samples, 2 * $count);
            }
            for ($i = 0; $events[$i]->type !== 0; $i++) {
                $e = $events[$i];
                $at = $e->audio_position / 1000.0;
                match ($e->type) {
                    self::SOUND => self::$heard['sounds'][] = [FFI::string($e->id->string), $at],
                    self::END => self::$heard['sounds'][] = ['_:', $at],
                    self::WORD => self::$heard['words'][] = [$e->text_position - 1, $e->length, $at],
                    default => null,
                };
            }

            return 0;
        });

        return self::$espeak = $espeak;
    }

    private static function take(string $text): Take
    {
        $wave = Wave::fromPcm(self::$rate, self::$heard['pcm']);
        $end = $wave->seconds();
        $words = self::words($text, $end);
        $phones = [];
        foreach (self::$heard['sounds'] as $k => [$name, $from]) {
            $to = min($end, self::$heard['sounds'][$k + 1][1] ?? $end);
            foreach ($to - $from < 1e-4 ? [] : Ipa::sounds($name) as $n => $sound) {
                $of = count(Ipa::sounds($name));
                $a = $from + ($to - $from) * $n / $of;
                $word = $sound === Phone::PAUSE ? -1 : self::wordAt($words, $a);
                $phones[] = new Phone($sound, $a, $from + ($to - $from) * ($n + 1) / $of, $word, $word >= 0, false);
            }
        }

        return new Take($wave, $phones, $words);
    }

    /** @return list<Word> as they were written, with what stands at their ends */
    private static function words(string $text, float $end): array
    {
        $out = [];
        $marks = self::$heard['words'];
        foreach ($marks as $k => [$at, $length, $from]) {
            $to = $marks[$k + 1][2] ?? $end;
            $written = trim(mb_substr($text, $at, $length), " \t\n.,;:!?\"…");
            if ($written !== '' && $to > $from) {
                $out[] = new Word($written, $from, $to);
            }
        }

        return $out;
    }

    /** @param  list<Word>  $words */
    private static function wordAt(array $words, float $t): int
    {
        $found = -1;
        foreach ($words as $k => $w) {
            if ($w->from <= $t + 0.005) {
                $found = $k;
            }
        }

        return $found;
    }
}
