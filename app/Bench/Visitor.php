<?php

declare(strict_types=1);

namespace App\Bench;

use GuzzleHttp\Client;
use GuzzleHttp\Cookie\CookieJar;
use GuzzleHttp\Promise\PromiseInterface;
use Psr\Http\Message\ResponseInterface;
use RuntimeException;

/** Somebody with a browser, as the server sees them: signs in, keeps cookies, calls. For load and chaos. */
final class Visitor
{
    private readonly CookieJar $cookies;

    public function __construct(private readonly Client $http, private readonly string $base)
    {
        $this->cookies = new CookieJar;
    }

    public function signIn(string $email, string $password): void
    {
        $this->send('GET', '/')->wait();
        $answer = $this->send('POST', '/api/sign-in', ['email' => $email, 'password' => $password])->wait();
        if (! $answer instanceof ResponseInterface || $answer->getStatusCode() !== 200) {
            throw new RuntimeException('The visitor could not sign in.');
        }
    }

    /** @param  array<string, mixed>|null  $body */
    public function send(string $method, string $path, ?array $body = null, int $afterMs = 0, float $seconds = 30.0): PromiseInterface
    {
        $token = $this->cookies->getCookieByName('XSRF-TOKEN')?->getValue() ?? '';

        return $this->http->requestAsync($method, $this->base.$path, [
            'cookies' => $this->cookies, 'http_errors' => false, 'delay' => $afterMs, 'timeout' => $seconds, 'connect_timeout' => 3.0,
            'headers' => ['Accept' => 'application/json', 'X-XSRF-TOKEN' => rawurldecode($token)],
            ...($body === null ? [] : ['json' => $body]),
        ]);
    }
}
