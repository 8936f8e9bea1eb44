<?php

declare(strict_types=1);

namespace Tests\StandIns;

use RuntimeException;
use Symfony\Component\Process\Process;

/** A bucket on this machine, on a port of its own, while this object lives. */
final class ObjectStore
{
    public const KEY = 'stand-in-key';

    public const SECRET = 'stand-in-secret';

    public const BUCKET = 'reel';

    public readonly int $port;

    private readonly Process $process;

    /** @param  string  $root  folder of buckets; the bucket "reel" is made in it */
    public function __construct(public readonly string $root)
    {
        is_dir("{$root}/".self::BUCKET) || mkdir("{$root}/".self::BUCKET, 0o755, true);
        $this->port = self::freePort();
        $environment = [
            'STAND_IN_ROOT' => $root, 'STAND_IN_KEY' => self::KEY, 'STAND_IN_SECRET' => self::SECRET, 'PHP_CLI_SERVER_WORKERS' => '4',
        ];
        $command = ['setsid', PHP_BINARY, '-d', 'enable_post_data_reading=0', '-S', "127.0.0.1:{$this->port}", __DIR__.'/object-store.php'];
        $this->process = new Process($command, null, $environment, null, null);
        $this->process->disableOutput()->start();
        for ($end = microtime(true) + 10; ($socket = @fsockopen('127.0.0.1', $this->port)) === false; usleep(20_000)) {
            microtime(true) < $end || throw new RuntimeException('The bucket did not start.');
        }
        fclose($socket);
    }

    public function stop(): void
    {
        // Its workers too: they form a group of their own.
        $id = $this->process->getPid();
        $id === null || posix_kill(-$id, SIGKILL);
        $this->process->stop(1);
    }

    /** @return array<string, string> settings of an installation whose store is here */
    public function settings(): array
    {
        return [
            'REEL_DISK' => 's3', 'AWS_ACCESS_KEY_ID' => self::KEY, 'AWS_SECRET_ACCESS_KEY' => self::SECRET, 'AWS_DEFAULT_REGION' => 'here',
            'AWS_BUCKET' => self::BUCKET, 'AWS_ENDPOINT' => "http://127.0.0.1:{$this->port}",
        ];
    }

    /** @return array<string, mixed> the disk's settings */
    public function disk(): array
    {
        return [
            'driver' => 's3', 'key' => self::KEY, 'secret' => self::SECRET, 'region' => 'here', 'bucket' => self::BUCKET,
            'endpoint' => "http://127.0.0.1:{$this->port}", 'use_path_style_endpoint' => true, 'throw' => true,
            'request_checksum_calculation' => 'when_required', 'response_checksum_validation' => 'when_required', 'retries' => 0,
        ];
    }

    public static function freePort(): int
    {
        $socket = stream_socket_server('tcp://127.0.0.1:0') ?: throw new RuntimeException('No port is free.');
        $port = (int) substr((string) strrchr((string) stream_socket_get_name($socket, false), ':'), 1);
        fclose($socket);

        return $port;
    }
}
