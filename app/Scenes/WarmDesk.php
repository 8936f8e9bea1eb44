<?php

declare(strict_types=1);

namespace App\Scenes;

use CrispReel\Core\Compile\UnableToCompile;

/**
 * Asks this machine's warm process (reel:warm), which remembers what it settled last, to settle a state of a scene or to bake
 * pieces of it. What it makes it keeps where all find it; where it does not answer, whoever asks does the work himself.
 */
final class WarmDesk
{
    private const CONNECT_SECONDS = 0.05;

    private const ANSWER_SECONDS = 25;

    /**
     * @param  array<string, string>  $light  lighter copies by the blob that they stand for
     *
     * @throws UnableToCompile
     */
    public function settle(string $state, array $light): bool
    {
        return $this->asked(['do' => 'settle', 'state' => $state, 'light' => (object) $light]);
    }

    /** @param  list<string>  $names */
    public function bake(string $state, int $n, array $names): bool
    {
        return $this->asked(['do' => 'bake', 'state' => $state, 'n' => $n, 'names' => $names]);
    }

    /**
     * What may be taken for whom is selected, or null where nobody answers.
     *
     * @return list<array<string, mixed>>|null
     */
    public function setUps(string $state, SetUpWish $wish): ?array
    {
        $answer = $this->answer(['do' => 'setups', 'state' => $state] + get_object_vars($wish));

        /** @var list<array<string, mixed>>|null */
        return ($answer['done'] ?? false) === true && is_array($answer['setUps'] ?? null) ? $answer['setUps'] : null;
    }

    /**
     * What cameras lose on the reel, or null where nobody answers.
     *
     * @return list<array<string, mixed>>|null
     */
    public function lookout(string $state): ?array
    {
        $answer = $this->answer(['do' => 'lookout', 'state' => $state]);

        /** @var list<array<string, mixed>>|null */
        return ($answer['done'] ?? false) === true && is_array($answer['notes'] ?? null) ? $answer['notes'] : null;
    }

    /** @param  array<string, mixed>  $what */
    private function asked(array $what): bool
    {
        return ($this->answer($what)['done'] ?? false) === true;
    }

    /**
     * @param  array<string, mixed>  $what
     * @return array<array-key, mixed>
     */
    private function answer(array $what): array
    {
        $socket = config('reel.warm');
        if (! is_string($socket) || ! file_exists($socket)) {
            return [];
        }
        $line = @stream_socket_client("unix://{$socket}", $code, $message, self::CONNECT_SECONDS);
        if ($line === false) {
            return [];
        }
        stream_set_timeout($line, self::ANSWER_SECONDS);
        fwrite($line, json_encode($what, JSON_THROW_ON_ERROR)."\n");
        $answer = json_decode((string) fgets($line), true);
        fclose($line);
        if (is_array($answer) && is_string($answer['refused'] ?? null)) {
            throw UnableToCompile::as($answer['refused'], (string) ($answer['message'] ?? ''), (string) ($answer['remedy'] ?? ''));
        }

        return is_array($answer) ? $answer : [];
    }
}
