<?php

declare(strict_types=1);

namespace LucidStep\Tests\Browser;

use PHPUnit\Framework\TestCase;

/**
 * A node that speaks TLS itself, by a certificate that a setting names.
 */
final class TlsTest extends TestCase
{
    private string $folder;

    protected function setUp(): void
    {
        $this->folder = sys_get_temp_dir() . '/lucid-tls-' . bin2hex(random_bytes(4));
        mkdir($this->folder);
        $key = openssl_pkey_new(['private_key_type' => OPENSSL_KEYTYPE_EC, 'curve_name' => 'prime256v1']);
        self::assertNotFalse($key);
        $settings = "{$this->folder}/openssl.cnf";
        file_put_contents($settings, "[req]\ndistinguished_name=dn\n[dn]\n[of]\nsubjectAltName=IP:127.0.0.1\n");
        $how = ['config' => $settings, 'x509_extensions' => 'of', 'digest_alg' => 'sha256'];
        $request = openssl_csr_new(['commonName' => '127.0.0.1'], $key, $how);
        self::assertInstanceOf(\OpenSSLCertificateSigningRequest::class, $request);
        $certificate = openssl_csr_sign($request, null, $key, 1, $how);
        self::assertNotFalse($certificate);
        openssl_x509_export_to_file($certificate, "{$this->folder}/node.pem");
        openssl_pkey_export_to_file($key, "{$this->folder}/node.key", null, $how);
    }

    protected function tearDown(): void
    {
        $this->shell('end "$(stack_dir tls-test)/nginx.pid" "$(stack_dir tls-test)/nginx.conf"');
        exec('rm -rf ' . escapeshellarg($this->folder));
    }

    public function test_a_node_serves_its_certificate_and_nothing_older_or_open(): void
    {
        [$port, $practice] = [self::freePort(), self::freePort()];
        // The workers of the stack that tests use answer behind it.
        $this->shell(
            "stack_write tls-test {$port} {$practice} && " .
                'for part in fpm watch; do ln -sf "$(stack_dir "$LUCID_TEST_STACK")/$part.sock" "$(stack_dir tls-test)/"; done && ' .
                'stack_nginx_start tls-test',
        );
        $page = $this->ask("https://127.0.0.1:{$port}/");
        self::assertSame(200, $page['status'], $page['error']);
        self::assertStringContainsString('<div id="app">', $page['body']);
        self::assertSame(200, $this->ask("https://127.0.0.1:{$port}/ready")['status']);
        self::assertSame(0, $this->ask("https://127.0.0.1:{$port}/", trusted: false)['status'], 'a certificate that nobody signed');
        self::assertSame(0, $this->ask("https://127.0.0.1:{$port}/", CURL_SSLVERSION_MAX_TLSv1_1)['status'], 'an older TLS');
        self::assertSame(400, $this->ask("http://127.0.0.1:{$port}/")['status'], 'without TLS');
        $framed = $this->ask("https://127.0.0.1:{$practice}/");
        self::assertSame(200, $framed['status'], $framed['error']);
        self::assertStringContainsString("frame-ancestors 'self' https://127.0.0.1:{$port} ", $framed['body']);
    }

    /**
     * @return array{status: int, error: string, body: string} status 0: no connection; the body with its headers
     */
    private function ask(string $url, int $version = CURL_SSLVERSION_DEFAULT, bool $trusted = true): array
    {
        $curl = curl_init($url);
        self::assertNotFalse($curl);
        curl_setopt_array($curl, [
            CURLOPT_RETURNTRANSFER => true,
            CURLOPT_HEADER => true,
            CURLOPT_TIMEOUT => 10,
            CURLOPT_SSLVERSION => $version,
        ]);
        if ($trusted) {
            curl_setopt($curl, CURLOPT_CAINFO, "{$this->folder}/node.pem");
        }
        $body = curl_exec($curl);

        return [
            'status' => (int) curl_getinfo($curl, CURLINFO_RESPONSE_CODE),
            'error' => curl_error($curl),
            'body' => \is_string($body) ? $body : '',
        ];
    }

    private function shell(string $command): void
    {
        $root = \dirname(__DIR__, 2);
        $tls = "STACK_TLS=yes LUCID_TLS_CERTIFICATE={$this->folder}/node.pem LUCID_TLS_KEY={$this->folder}/node.key";
        $all = "set -eu; export {$tls}; ROOT={$root}; . ops/lib.sh; . ops/stack.sh; mkdir -p \"\$(stack_dir tls-test)/log\"; ";
        $all .= ": >\"\$(stack_dir tls-test)/env\"; {$command}";
        exec('cd ' . escapeshellarg($root) . ' && bash -c ' . escapeshellarg($all) . ' 2>&1', $output, $code);
        self::assertSame(0, $code, implode("\n", $output));
    }

    private static function freePort(): int
    {
        $socket = stream_socket_server('tcp://127.0.0.1:0');
        self::assertNotFalse($socket);
        $port = (int) substr((string) strrchr((string) stream_socket_get_name($socket, false), ':'), 1);
        fclose($socket);

        return $port;
    }
}
