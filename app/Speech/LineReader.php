<?php

declare(strict_types=1);

namespace App\Speech;

use App\Isolation\Box;
use App\Isolation\BoxLimits;
use CrispReel\Core\Format\Wave;
use CrispReel\Core\Kit\Sounds\Noises;
use CrispReel\Core\Speech\Phone;
use CrispReel\Core\Speech\Reading;
use CrispReel\Core\Speech\Script;
use CrispReel\Core\Speech\Word;

/** A whole line read aloud: its stretches by a voice, its pauses, how it is said, and its times. */
final class LineReader
{
    /** Pace, pitch, range, decibels, and decibels of what is above 3 kHz, by how a line is said. */
    private const DELIVERIES = [
        'plain' => [1.0, 1.0, 1.0, 0.0, 0.0], 'calm' => [0.90, 0.97, 0.8, -2.0, -1.0], 'eager' => [1.15, 1.08, 1.5, 1.5, 1.5],
        'angry' => [1.10, 1.04, 1.6, 4.0, 3.0], 'sad' => [0.82, 0.93, 0.6, -3.0, -3.0], 'whispered' => [0.92, 1.0, 0.3, -9.0, 2.0],
        'called' => [0.88, 1.22, 1.6, 6.0, 3.0], 'tired' => [0.80, 0.94, 0.5, -4.0, -3.0],
    ];

    /** Loudness of plain speech: root of the mean square of its loud places. */
    private const LEVEL = 0.13;

    /** Seconds of silence before the first sound at least: a breath is seen, and lips round before they sound. */
    private const LEAD = 0.25;

    /** Pitch of a noise by who makes it, and its loudest sample. */
    private const NOISES = ['child' => 290.0, 'woman' => 205.0, 'man' => 118.0];

    private const NOISE = 0.16;

    /** Samples a second where no voice says another number. */
    private const RATE = 22050;

    /** @var array<string, Voice> */
    private array $engines = [];

    /** @throws NoVoice */
    public function read(Wish $wish): Take
    {
        [$pace, $pitch, $range, $gain, $bright] = self::DELIVERIES[$wish->delivery] ?? self::DELIVERIES['plain'];
        $card = $wish->voice;
        $whispers = $wish->delivery === 'whispered' && $card->engine !== 'tones';
        $base = $whispers ? self::whispering($card) : $card->base;
        $engine = $this->engine($whispers ? 'espeak' : $card->engine);
        // What moves the mouth's sounds moves the pitch along: the voice is asked for that much less.
        $size = $whispers ? 1.0 : $card->size;
        $manner = new Manner($base, $card->pace * $pace * $wish->pace, $card->pitch * $pitch / $size, $card->range * $range);
        $parts = [];
        foreach (Script::pieces($wish->text) as $piece) {
            if (isset($piece['pause'])) {
                $parts[] = $piece['pause'];
            } elseif (isset($piece['say']) && preg_match('/[\p{L}\p{N}]/u', $piece['say']) === 1) {
                $parts[] = $engine->read($piece['say'], $manner);
            } elseif (isset($piece['do'])) {
                $parts[] = $piece['do'];
                if (in_array($piece['do'], Script::NOISES, true)) {
                    $parts[] = self::noise($piece['do'], $card, $pitch);
                }
            }
        }
        if (array_filter($parts, static fn (mixed $p): bool => $p instanceof Take && $p->words !== []) === []) {
            throw new NoVoice('There is nothing in it that could be said.');
        }
        $take = self::weighed(self::joined($parts), Script::weighty($wish->text));

        $take = self::shaped($take, $size, $bright);

        return new Take(self::even($take->wave, $gain), $take->phones, $take->words, $take->events);
    }

    /** A noise between words: it sounds, and no word is in it. */
    private static function noise(string $name, VoiceCard $card, float $pitch): Take
    {
        $hertz = 160.0;
        foreach (self::NOISES as $who => $own) {
            $hertz = in_array($who, $card->suits, true) ? $own : $hertz;
        }
        $wave = Noises::of($name, $hertz * $pitch, self::NOISE);

        return new Take($wave, [new Phone(Phone::PAUSE, 0.0, $wave->seconds())], []);
    }

    private function engine(string $name): Voice
    {
        return $this->engines[$name] ??= match ($name) {
            'flite' => new FliteVoice, 'espeak' => new EspeakVoice, default => new TonesVoice,
        };
    }

    /** The voice that whispers in somebody's language. */
    private static function whispering(VoiceCard $card): string
    {
        $language = $card->engine === 'espeak' ? explode('+', $card->base)[0] : 'en-us';

        return $language.(in_array('man', $card->suits, true) ? '+whisper' : '+whisperf');
    }

    /**
     * One after the other.
     *
     * @param  list<float|string|Take>  $parts  takes, pauses in seconds, and what is done between them
     */
    private static function joined(array $parts): Take
    {
        $rate = self::RATE;
        foreach ($parts as $p) {
            $rate = $p instanceof Take && $p->words !== [] ? $p->wave->rate : $rate;
        }
        $samples = [];
        $phones = $words = $events = $open = [];
        $silence = static function (float $seconds) use (&$samples, &$phones, $rate): void {
            $from = count($samples) / $rate;
            $samples = [...$samples, ...array_fill(0, max(1, (int) round($seconds * $rate)), 0.0)];
            $phones[] = new Phone(Phone::PAUSE, $from, count($samples) / $rate);
        };
        foreach ($parts as $p) {
            if (is_string($p)) {
                $open[] = $p;

                continue;
            }
            $first = $p instanceof Take && $p->words !== [] ? $p->phones[0] ?? null : null;
            $lead = $first !== null && $first->isPause() ? $first->seconds() : 0.0;
            // What is done before a word begins with its first sound, not with the silence before that.
            foreach ($open as $do) {
                $events[] = [$do, count($samples) / $rate + ($samples === [] && $p instanceof Take ? max($lead, self::LEAD) : $lead)];
            }
            $open = [];
            if (! $p instanceof Take) {
                $silence($p);

                continue;
            }
            if ($samples === [] && $lead < self::LEAD) {
                $silence(self::LEAD - $lead);
            }
            $at = count($samples) / $rate;
            $known = count($words);
            foreach ($p->phones as $phone) {
                $phones[] = new Phone(
                    $phone->name, $at + $phone->from, $at + $phone->to, $phone->word < 0 ? -1 : $phone->word + $known, $phone->stressed,
                    $phone->accented,
                );
            }
            foreach ($p->words as $word) {
                $words[] = new Word($word->text, $at + $word->from, $at + $word->to);
            }
            array_push($samples, ...$p->wave->at($rate)->samples);
        }

        foreach ($open as $do) {
            $events[] = [$do, count($samples) / $rate];
        }

        return new Take(new Wave($rate, $samples), self::whole($phones), $words, $events);
    }

    /**
     * Pauses one after the other are one.
     *
     * @param  list<Phone>  $phones
     * @return list<Phone>
     */
    private static function whole(array $phones): array
    {
        $out = [];
        $last = null;
        foreach ($phones as $p) {
            if ($last !== null && $last->isPause() && $p->isPause()) {
                array_pop($out);
                $p = new Phone(Phone::PAUSE, $last->from, $p->to);
            }
            $out[] = $last = $p;
        }

        return $out;
    }

    /**
     * Words with weight are spoken with weight.
     *
     * @param  list<string>  $weighty
     */
    private static function weighed(Take $take, array $weighty): Take
    {
        if ($weighty === []) {
            return $take;
        }
        $heavy = array_filter($take->words, static fn (Word $w): bool => in_array(Script::bare($w->text), $weighty, true));
        $samples = $take->wave->samples;
        foreach ($heavy as $w) {
            [$from, $to] = [(int) ($w->from * $take->wave->rate), min(count($samples), (int) ($w->to * $take->wave->rate))];
            for ($i = $from; $i < $to; $i++) {
                // Three decibels, in and out within a twentieth of the word.
                $edge = min(1.0, 20.0 * min($i - $from, $to - $i) / max(1, $to - $from));
                $samples[$i] *= 1.0 + 0.41 * $edge;
            }
        }

        return new Take(new Wave($take->wave->rate, $samples), array_map(
            static fn (Phone $p): Phone => isset($heavy[$p->word]) && $p->stressed
                ? new Phone($p->name, $p->from, $p->to, $p->word, true, true)
                : $p,
            $take->phones,
        ), $take->words, $take->events);
    }

    /** The mouth's sounds moved, and what is bright of them: by rubberband within ffmpeg, which keeps all times. */
    private static function shaped(Take $take, float $size, float $bright): Take
    {
        $filters = [
            ...($size === 1.0 ? [] : [sprintf('rubberband=pitch=%.4F:formant=shifted:pitchq=quality', $size)]),
            ...($bright === 0.0 ? [] : [sprintf('treble=g=%.1F:f=3000', $bright)]),
        ];
        if ($filters === []) {
            return $take;
        }
        $ffmpeg = config('reel.ffmpeg');
        $seconds = 10 + (int) $take->wave->seconds();
        $result = Box::run(
            [
                is_string($ffmpeg) ? $ffmpeg : 'ffmpeg', '-v', 'error', '-nostdin', '-protocol_whitelist', 'file,pipe', '-f', 'wav',
                '-i', 'line.wav', '-af', implode(',', $filters), '-ac', '1', '-ar', (string) $take->wave->rate, '-f', 's16le', 'pipe:1',
            ],
            ['line.wav' => $take->wave->toWav()], [], new BoxLimits($seconds, $seconds + 5, outputBytes: 64 << 20),
        );
        if ($result->code !== 0 || $result->output === '') {
            throw new NoVoice('The voice could not be given its colour: ffmpeg ended with code '.$result->code.'.');
        }
        $wave = Wave::fromPcm($take->wave->rate, $result->output);
        $wave->samples = array_pad(array_slice($wave->samples, 0, count($take->wave->samples)), count($take->wave->samples), 0.0);

        return new Take($wave, $take->phones, $take->words, $take->events);
    }

    /** As loud as plain speech is in its loud places, and so many decibels more. */
    public static function even(Wave $wave, float $gain = 0.0): Wave
    {
        $factor = self::LEVEL * 10.0 ** ($gain / 20.0) / Reading::fullOf(self::loudness($wave));
        $factor = min($factor, 0.97 / max(1e-4, $wave->peak()));

        return new Wave($wave->rate, array_map(static fn (float $s): float => $s * $factor, $wave->samples));
    }

    /** @return list<float> root of the mean square of each of the reading's steps */
    public static function loudness(Wave $wave): array
    {
        $step = max(1, (int) round($wave->rate * Reading::STEP));
        $out = [];
        foreach (array_chunk($wave->samples, $step) as $part) {
            $sum = 0.0;
            foreach ($part as $s) {
                $sum += $s * $s;
            }
            $out[] = sqrt($sum / count($part));
        }

        return $out;
    }
}
