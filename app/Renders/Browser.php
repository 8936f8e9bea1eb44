<?php

declare(strict_types=1);

namespace App\Renders;

use Facebook\WebDriver\Chrome\ChromeOptions;
use Facebook\WebDriver\Remote\DesiredCapabilities;
use Facebook\WebDriver\Remote\RemoteWebDriver;
use RuntimeException;
use Symfony\Component\Process\Process;

/** Headless Chromium through ChromeDriver, in a folder of its own that goes when it closes. */
final class Browser
{
    private function __construct(
        public readonly RemoteWebDriver $driver,
        private readonly Process $process,
        private readonly string $profile,
    ) {
    }

    /** @param  list<string>  $more  switches of Chromium */
    public static function open(int $width = 1280, int $height = 800, array $more = []): self
    {
        $driver = config('reel.chromedriver');
        $chrome = config('reel.chrome');
        if (! is_string($driver) || ! is_file($driver) || ! is_string($chrome) || ! is_file($chrome)) {
            throw new RuntimeException('Chromium or ChromeDriver is not installed; bin/start installs both.');
        }
        if (function_exists('posix_geteuid') && posix_geteuid() === 0) {
            throw new RuntimeException('Chromium keeps its sandbox only when an ordinary user starts it; start this as one.');
        }
        $port = self::freePort();
        $profile = sys_get_temp_dir().'/crisp-reel-browser-'.bin2hex(random_bytes(6));
        // Programs of the graphics driver that draws on the processor are compiled once an installation, not once a browser: 6 s of each.
        $shaders = storage_path('framework/shaders');
        $process = new Process([$driver, "--port={$port}", '--log-level=SEVERE'], null, ['MESA_SHADER_CACHE_DIR' => $shaders]);
        $process->setTimeout(null);
        $process->start();
        $options = new ChromeOptions;
        $options->setBinary($chrome);
        $options->addArguments([
            '--headless=new', '--disable-background-networking', '--disable-component-update', '--disable-sync', '--disable-quic',
            '--no-first-run',
            '--hide-scrollbars', '--force-device-scale-factor=1', '--disable-dev-shm-usage', "--window-size={$width},{$height}",
            "--user-data-dir={$profile}",
            '--use-gl=angle', '--use-angle=gl-egl', '--ignore-gpu-blocklist', '--disable-renderer-backgrounding',
            '--disable-background-timer-throttling', ...$more,
        ]);
        $capabilities = DesiredCapabilities::chrome();
        $capabilities->setCapability(ChromeOptions::CAPABILITY, $options);
        $capabilities->setCapability('goog:loggingPrefs', ['browser' => 'ALL']);
        for ($try = 0; ; $try++) {
            try {
                return new self(RemoteWebDriver::create("http://127.0.0.1:{$port}", $capabilities, 30_000, 600_000), $process, $profile);
            } catch (\Throwable $e) {
                if ($try >= 40 || ! $process->isRunning()) {
                    $process->stop(1);
                    throw new RuntimeException('Chromium did not start: '.$e->getMessage(), 0, $e);
                }
                usleep(150_000);
            }
        }
    }

    public function close(): void
    {
        try {
            $this->driver->quit();
        } catch (\Throwable) {
            // It is gone already; the process and the folder still have to go.
        }
        $this->process->stop(2);
        (new Process(['rm', '-rf', $this->profile]))->run();
    }

    private static function freePort(): int
    {
        $socket = stream_socket_server('tcp://127.0.0.1:0');
        $name = $socket === false ? '' : (string) stream_socket_get_name($socket, false);
        if ($socket !== false) {
            fclose($socket);
        }

        return (int) substr($name, (int) strrpos($name, ':') + 1);
    }
}
