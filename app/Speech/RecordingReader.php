<?php

declare(strict_types=1);

namespace App\Speech;

use App\Sound\SoundFiles;
use CrispReel\Core\Format\Wave;
use CrispReel\Core\Sound\Alignment;
use CrispReel\Core\Sound\Cepstra;
use CrispReel\Core\Sound\Mixdown;
use CrispReel\Core\Sound\Overheard;
use CrispReel\Core\Sound\Silences;
use CrispReel\Core\Speech\Reading;
use CrispReel\Core\Speech\Script;
use RuntimeException;

/**
 * Listens to a recording of a line: where it begins and ends, how loud it is, and when each word of the line is heard, told by a
 * voice that says the same. The recording itself stays as it is.
 */
final class RecordingReader
{
    /** Seconds of a recording that is listened to at most. */
    private const MOST = 180.0;

    /** Seconds that are left before the first and after the last that is heard: as much as a voice leaves. */
    private const ROOM = [0.25, 0.2];

    /** Seconds in which it comes and goes, so that nothing clicks. */
    private const EDGE = 0.005;

    public function __construct(private readonly SoundFiles $files, private readonly LineReader $reader)
    {
    }

    /**
     * @return array{Wave, Reading, array{from: float, to: float, seconds: float}} what is heard, its times, and where in the recording
     *
     * @throws NoVoice where nothing is heard in it
     */
    public function read(Wish $wish, Recorded $recorded, string $bytes): array
    {
        try {
            $pcm = $this->files->pcm($bytes, 1);
            $plain = Wave::fromPcm(Cepstra::RATE, $this->files->pcm($bytes, 1, Cepstra::RATE));
        } catch (RuntimeException) {
            throw new NoVoice('The recording cannot be played any more. Record it again, or let the voice read the line.');
        }
        $heard = Silences::heard(Cepstra::loudness($plain), ...self::ROOM);
        if ($heard === null) {
            throw new NoVoice('Nothing is heard in the recording. Was the microphone on? Record it again, or let the voice read the line.');
        }
        $seconds = $plain->seconds();
        $from = min($recorded->from ?? $heard[0], max(0.0, $seconds - 0.1));
        $to = max($from + 0.1, min($recorded->to ?? $heard[1], $seconds));
        if ($to - $from > self::MOST) {
            throw new NoVoice(sprintf(
                'The recording has %d s of speech, and a line at most %d. Cut it into several lines.', $to - $from, self::MOST,
            ));
        }
        $at = static fn (float $t): int => 2 * (int) round($t * Mixdown::RATE);
        $sound = LineReader::even(
            Wave::fromPcm(Mixdown::RATE, substr($pcm, $at($from), $at($to) - $at($from))),
        )->faded(self::EDGE, self::EDGE);
        $loudness = LineReader::loudness($sound);
        $first = (int) round($from * Cepstra::RATE);
        $part = new Wave(Cepstra::RATE, array_slice($plain->samples, $first, (int) round($to * Cepstra::RATE) - $first));

        return [
            $sound, $this->times($wish, $part, $loudness),
            ['from' => round($from, 4), 'to' => round($to, 4), 'seconds' => round($seconds, 4)],
        ];
    }

    /** @param  list<float>  $loudness */
    private function times(Wish $wish, Wave $heard, array $loudness): Reading
    {
        if (trim(Script::heard($wish->text)) === '') {
            return Overheard::of($heard, $loudness);
        }
        $card = $wish->voice;
        // As its program says it by itself: nothing is nearer to what people say.
        $plain = new VoiceCard($card->id, $card->name, $card->says, $card->engine, $card->base, $card->language, $card->suits);
        try {
            $take = $this->reader->read(new Wish(Script::withoutNoises($wish->text), $plain, 'plain', 1.0));
        } catch (NoVoice) {
            return Overheard::of($heard, $loudness);
        }
        $voice = Wave::fromPcm(Cepstra::RATE, $this->files->pcm($take->wave->toWav(), 1, Cepstra::RATE));
        $reading = new Reading($take->wave->seconds(), $take->phones, $take->words, events: $take->events);

        return Alignment::of($reading, $voice, $heard, $loudness);
    }
}
