<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Tracker;

use GuzzleHttp\Client;
use GuzzleHttp\Exception\GuzzleException;
use GuzzleHttp\RequestOptions;
use LucidStep\Core\Defects\Tracker\Outcome;
use LucidStep\Core\Defects\Tracker\OutsideAddress;
use Psr\Http\Message\StreamInterface;

/**
 * Calls a service outside: only where the installation allows it, at the address that was looked at, without following redirects, within
 * bounds of time and size.
 */
final class OutsideHttp
{
    private const SECONDS = 15;

    private const MOST_BYTES = 2 * 1024 * 1024;

    /**
     * @param  array<string, string>  $headers
     * @param  array<string, mixed>  $body `json` or `multipart` as Guzzle takes them; none: nothing is sent
     *
     * @throws TrackerAway    when it does not answer, or not now
     * @throws TrackerRefused when it may not be called, or refuses
     */
    public function send(string $method, string $url, array $headers = [], array $body = []): OutsideAnswer
    {
        $answer = $this->ask($method, $url, $headers, $body);

        return match (Outcome::of($answer->status)) {
            Outcome::Sent => $answer,
            Outcome::Again => throw new TrackerAway($answer->status, "It answered {$answer->status}. {$answer->excerpt(160)}"),
            Outcome::Refused => throw TrackerRefused::answered($answer),
        };
    }

    /**
     * Whatever it answers.
     *
     * @param  array<string, string>  $headers
     * @param  array<string, mixed>  $body
     *
     * @throws TrackerAway    when it does not answer
     * @throws TrackerRefused when it may not be called
     */
    public function ask(string $method, string $url, array $headers = [], array $body = []): OutsideAnswer
    {
        [$host, $port, $ip] = $this->place($url);
        try {
            $response = (new Client())->request($method, $url, [
                ...$body,
                RequestOptions::HEADERS => ['Accept' => 'application/json', 'User-Agent' => 'Lucid Step', ...$headers],
                RequestOptions::HTTP_ERRORS => false,
                RequestOptions::ALLOW_REDIRECTS => false,
                RequestOptions::CONNECT_TIMEOUT => 5,
                RequestOptions::TIMEOUT => self::SECONDS,
                RequestOptions::READ_TIMEOUT => self::SECONDS,
                RequestOptions::DECODE_CONTENT => false,
                RequestOptions::PROXY => '',
                // What was looked at is what is called, whatever the name stands for a moment later.
                'curl' => [\CURLOPT_RESOLVE => ["{$host}:{$port}:" . (str_contains($ip, ':') ? "[{$ip}]" : $ip)]],
                RequestOptions::PROGRESS => static function (mixed $total, mixed $got): void {
                    if ((int) $total > self::MOST_BYTES || (int) $got > self::MOST_BYTES) {
                        throw new TooMuch();
                    }
                },
            ]);

            return new OutsideAnswer($response->getStatusCode(), self::read($response->getBody()));
        } catch (GuzzleException | \RuntimeException $e) {
            if ($e instanceof TooMuch || $e->getPrevious() instanceof TooMuch) {
                throw new TrackerRefused(200, 'It answers more than 2 MB. Look at the address, and send it again.');
            }
            throw new TrackerAway(null, 'It does not answer: ' . mb_strimwidth(mb_scrub($e->getMessage(), 'UTF-8'), 0, 160, '…'));
        }
    }

    /**
     * @throws TrackerRefused when it may not be called
     * @return array{string, int, string} host, port, and the address that it stands for
     */
    private function place(string $url): array
    {
        $question = strcspn($url, '?');
        try {
            $named = OutsideAddress::hostOf(substr($url, 0, $question));
        } catch (\DomainException $e) {
            throw new TrackerRefused(0, $e->getMessage());
        }
        $at = (int) strrpos($named, ':');
        [$host, $port] = [substr($named, 0, $at), (int) substr($named, $at + 1)];
        $plain = trim($host, '[]');
        $ips = false !== filter_var($plain, \FILTER_VALIDATE_IP) ? [$plain] : (gethostbynamel($host) ?: []);
        if ([] === $ips) {
            throw new TrackerAway(null, "Nothing is known of {$host}.");
        }
        /** @var list<string> $allowed */
        $allowed = config('lucid.outside_hosts');
        if (!OutsideAddress::isAllowed($named, $ips, $allowed)) {
            throw new TrackerRefused(0, "{$named} lies within the network. Whoever runs the installation names it in LUCID_OUTSIDE_HOSTS.");
        }

        return [$host, $port, $ips[0]];
    }

    private static function read(StreamInterface $body): string
    {
        $text = $body->read(self::MOST_BYTES + 1);
        if (\strlen($text) > self::MOST_BYTES) {
            throw new TooMuch();
        }

        return $text . ($body->eof() ? '' : $body->getContents());
    }
}
