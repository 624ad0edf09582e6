<?php

declare(strict_types=1);

namespace LucidStep\App\Support\Record;

/**
 * Signs seals, heads and bundles with the key of this installation (Ed25519, libsodium), and checks what it signed. The key
 * lies in a folder of its own outside the database, so that who can write there only cannot sign; public keys of earlier ones
 * stay beside it, so that what they signed can still be checked. A signature says: made by this installation.
 */
final class RecordSigner
{
    private const KEY = 'record.key';

    /** @var ?non-empty-string the pair of keys, once it was read */
    private ?string $pair = null;

    /**
     * @return string the key's fingerprint, a colon, and the signature in base64
     */
    public function sign(string $message): string
    {
        $signature = sodium_crypto_sign_detached($message, sodium_crypto_sign_secretkey($this->pair()));

        return $this->fingerprint() . ':' . base64_encode($signature);
    }

    /**
     * What is wrong with a signature; null when it is one of this installation's for this message.
     */
    public function fault(string $message, ?string $signed): ?string
    {
        if (null === $signed || '' === $signed) {
            return 'it is not signed';
        }
        [$fingerprint, $signature] = [...explode(':', $signed, 2), ''];
        $key = $this->publicKey($fingerprint);
        if (null === $key) {
            return "it is signed with a key that is not this installation's ({$fingerprint})";
        }
        $bytes = (string) base64_decode($signature, true);
        $right = \SODIUM_CRYPTO_SIGN_BYTES === \strlen($bytes) && '' !== $key && sodium_crypto_sign_verify_detached($bytes, $message, $key);

        return $right ? null : 'its signature does not fit';
    }

    /**
     * The SHA-256 of the public key, in hex: what is told to others, to know by whom something was signed.
     */
    public function fingerprint(): string
    {
        return hash('sha256', sodium_crypto_sign_publickey($this->pair()));
    }

    /**
     * @return ?string its bytes; null when this installation never had it
     */
    public function publicKey(string $fingerprint): ?string
    {
        $file = $this->folder() . "/{$fingerprint}.pub";
        $key =
            1 === preg_match('/^[0-9a-f]{64}$/D', $fingerprint) && is_file($file)
                ? base64_decode((string) file_get_contents($file), true)
                : false;

        return false !== $key && hash('sha256', $key) === $fingerprint ? $key : null;
    }

    /**
     * Takes a new key from now on. What the old one signed can still be checked.
     *
     * @return string the new one's fingerprint
     */
    public function rotate(): string
    {
        $this->make();

        return $this->fingerprint();
    }

    /**
     * @return non-empty-string
     */
    private function pair(): string
    {
        return $this->pair ??= $this->stored() ?? $this->first();
    }

    /**
     * The first key of an installation: made once, however many ask for it at the same time.
     *
     * @return non-empty-string
     */
    private function first(): string
    {
        if (!is_dir($this->folder())) {
            @mkdir($this->folder(), 0700, true);
        }
        $lock =
            fopen($this->folder() . '/lock', 'c') ?:
            throw new \RuntimeException("The key of the record cannot be kept in {$this->folder()}.");
        flock($lock, \LOCK_EX);
        try {
            return $this->stored() ?? $this->make();
        } finally {
            fclose($lock);
        }
    }

    /**
     * @return ?non-empty-string
     */
    private function stored(): ?string
    {
        $file = $this->folder() . '/' . self::KEY;
        $pair = is_file($file) ? base64_decode((string) file_get_contents($file), true) : false;

        return false !== $pair && \SODIUM_CRYPTO_SIGN_KEYPAIRBYTES === \strlen($pair) ? $pair : null;
    }

    /**
     * @return non-empty-string
     */
    private function make(): string
    {
        $pair = sodium_crypto_sign_keypair();
        $public = sodium_crypto_sign_publickey($pair);
        $this->write(hash('sha256', $public) . '.pub', $public, 0640);
        $this->write(self::KEY, $pair, 0600);

        return $this->pair = $pair;
    }

    /** Beside and then in its place: a key half written would be none. */
    private function write(string $name, string $bytes, int $mode): void
    {
        $path = "{$this->folder()}/{$name}";
        $new = "{$path}." . bin2hex(random_bytes(4));
        if (false === file_put_contents($new, base64_encode($bytes) . "\n") || !chmod($new, $mode) || !rename($new, $path)) {
            throw new \RuntimeException("The key of the record cannot be written to {$path}.");
        }
    }

    private function folder(): string
    {
        return (string) config('lucid.keys');
    }
}
