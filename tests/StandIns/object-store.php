<?php

declare(strict_types=1);

/*
 * A bucket on this machine, for trying and testing an installation whose store is elsewhere: objects are put, looked at, listed,
 * copied and removed by the calls of the S3 interface, each signed with "AWS Signature Version 4" (checked here by its public rules).
 * An object is there whole or not at all. Not for earnest use.
 *   STAND_IN_ROOT=folder STAND_IN_KEY=key STAND_IN_SECRET=secret php -S 127.0.0.1:9000 tests/StandIns/object-store.php
 */

$root = (string) getenv('STAND_IN_ROOT');
$method = (string) $_SERVER['REQUEST_METHOD'];
$path = (string) parse_url((string) $_SERVER['REQUEST_URI'], PHP_URL_PATH);
$query = [];
foreach (array_filter(explode('&', (string) ($_SERVER['QUERY_STRING'] ?? ''))) as $pair) {
    [$name, $value] = explode('=', $pair, 2) + [1 => ''];
    $query[rawurldecode($name)] = rawurldecode($value);
}
$body = (string) file_get_contents('php://input');

/** An error in the interface's form. */
function refuse(int $status, string $code): never
{
    http_response_code($status);
    header('Content-Type: application/xml');
    echo "<?xml version=\"1.0\"?><Error><Code>{$code}</Code><Message>{$code}</Message></Error>";
    exit;
}

function answer(string $xml): never
{
    header('Content-Type: application/xml');
    echo '<?xml version="1.0" encoding="UTF-8"?>'.$xml;
    exit;
}

function headerOf(string $name): string
{
    $key = strtoupper(strtr($name, '-', '_'));

    return trim((string) ($_SERVER[$key] ?? $_SERVER["HTTP_{$key}"] ?? ''));
}

/** Whether the call is signed with the secret: canonical request, string to sign, derived key. */
function isSigned(string $method, string $path, array $query, string $body): bool
{
    $pattern = '~^AWS4-HMAC-SHA256 Credential=([^/]+)/(\d{8})/([^/]+)/s3/aws4_request, ?SignedHeaders=([^,]+), ?Signature=([0-9a-f]{64})$~';
    if (preg_match($pattern, headerOf('Authorization'), $m) !== 1 || $m[1] !== getenv('STAND_IN_KEY')) {
        return false;
    }
    $hash = headerOf('X-Amz-Content-Sha256');
    if ($hash !== 'UNSIGNED-PAYLOAD' && $hash !== hash('sha256', $body)) {
        return false;
    }
    ksort($query, SORT_STRING);
    $asked = implode(
        '&',
        array_map(
            static fn (string $k, string $v): string => rawurlencode($k).'='.rawurlencode($v),
            array_map(strval(...), array_keys($query)),
            $query,
        ),
    );
    $headers = '';
    foreach (explode(';', $m[4]) as $name) {
        $headers .= $name.':'.preg_replace('/ +/', ' ', headerOf($name))."\n";
    }
    $request = hash('sha256', implode("\n", [$method, $path, $asked, $headers, $m[4], $hash]));
    $text = implode("\n", ['AWS4-HMAC-SHA256', headerOf('X-Amz-Date'), "{$m[2]}/{$m[3]}/s3/aws4_request", $request]);
    $key = 'AWS4'.getenv('STAND_IN_SECRET');
    foreach ([$m[2], $m[3], 's3', 'aws4_request'] as $part) {
        $key = hash_hmac('sha256', $part, $key, true);
    }

    return hash_equals(hash_hmac('sha256', $text, $key), $m[5]);
}

/** Puts bytes there at once. */
function keep(string $file, string $bytes): void
{
    is_dir(dirname($file)) || @mkdir(dirname($file), 0o755, true);
    $part = $file.'.new-'.bin2hex(random_bytes(6));
    if (@file_put_contents($part, $bytes) !== strlen($bytes) || ! rename($part, $file)) {
        refuse(500, 'InternalError');
    }
}

/** @return list<string> keys under a prefix, in order */
function keysUnder(string $bucket, string $prefix): array
{
    $keys = [];
    $top = is_dir("{$bucket}/{$prefix}") ? "{$bucket}/{$prefix}" : dirname("{$bucket}/{$prefix}x");
    if (! is_dir($top)) {
        return [];
    }
    foreach (new RecursiveIteratorIterator(new RecursiveDirectoryIterator($top, FilesystemIterator::SKIP_DOTS)) as $file) {
        $key = ltrim(substr((string) $file, strlen($bucket)), '/');
        if (str_starts_with($key, $prefix) && ! str_starts_with($key, '.parts/')) {
            $keys[] = $key;
        }
    }
    sort($keys);

    return $keys;
}

/** @param  array<string, string>  $query */
function listed(string $bucket, array $query): string
{
    $prefix = $query['prefix'] ?? '';
    $delimiter = $query['delimiter'] ?? '';
    $most = (int) ($query['max-keys'] ?? 1000);
    $after = $query['continuation-token'] ?? '';
    $rows = $folders = '';
    $seen = [];
    $last = '';
    foreach (keysUnder($bucket, $prefix) as $key) {
        $cut = $delimiter === '' ? false : strpos($key, $delimiter, strlen($prefix));
        $shown = $cut === false ? $key : substr($key, 0, $cut + 1);
        if (strcmp($shown, $after) <= 0 || isset($seen[$shown])) {
            continue;
        }
        if (count($seen) === $most) {
            return listing($rows.$folders."<IsTruncated>true</IsTruncated><NextContinuationToken>{$last}</NextContinuationToken>");
        }
        $seen[$last = $shown] = true;
        $name = htmlspecialchars($shown, ENT_XML1);
        $file = "{$bucket}/{$key}";
        $cut === false
            ? $rows .= "<Contents><Key>{$name}</Key><LastModified>".gmdate('Y-m-d\TH:i:s.000\Z', (int) filemtime($file))
            .'</LastModified><Size>'.filesize($file).'</Size></Contents>'
            : $folders .= "<CommonPrefixes><Prefix>{$name}</Prefix></CommonPrefixes>";
    }

    return listing($rows.$folders.'<IsTruncated>false</IsTruncated>');
}

function listing(string $rows): string
{
    return "<ListBucketResult xmlns=\"http://s3.amazonaws.com/doc/2006-03-01/\">{$rows}</ListBucketResult>";
}

/** Sends an object, or a range of it. */
function send(string $file, bool $withBody): never
{
    if (! is_file($file)) {
        refuse(404, 'NoSuchKey');
    }
    $size = (int) filesize($file);
    [$from, $to] = [0, $size - 1];
    if (preg_match('/^bytes=(\d+)-(\d*)$/', headerOf('Range'), $m) === 1) {
        [$from, $to] = [(int) $m[1], $m[2] === '' ? $size - 1 : min($size - 1, (int) $m[2])];
        http_response_code(206);
        header("Content-Range: bytes {$from}-{$to}/{$size}");
    }
    header('Content-Type: application/octet-stream');
    header('Content-Length: '.($to - $from + 1));
    header('ETag: "'.md5_file($file).'"');
    header('Last-Modified: '.gmdate('D, d M Y H:i:s', (int) filemtime($file)).' GMT');
    if ($withBody && $size > 0) {
        echo file_get_contents($file, false, null, $from, $to - $from + 1);
    }
    exit;
}

isSigned($method, $path, $query, $body) || refuse(403, 'SignatureDoesNotMatch');
[$name, $key] = explode('/', ltrim(rawurldecode($path), '/'), 2) + [1 => ''];
preg_match('/^[a-z0-9-]+$/', $name) === 1 && ! in_array('..', explode('/', $key), true) || refuse(400, 'InvalidBucketName');
$bucket = "{$root}/{$name}";
is_dir($bucket) || refuse(404, 'NoSuchBucket');
$file = "{$bucket}/{$key}";
$upload = "{$bucket}/.parts/".preg_replace('/[^0-9a-f]/', '', $query['uploadId'] ?? '');

if ($method === 'GET' && $key === '') {
    answer(listed($bucket, $query));
}
if ($method === 'GET' && isset($query['acl'])) {
    answer('<AccessControlPolicy><Owner><ID>me</ID></Owner><AccessControlList></AccessControlList></AccessControlPolicy>');
}
if ($method === 'GET' || $method === 'HEAD') {
    send($file, $method === 'GET');
}
if ($method === 'POST' && isset($query['delete'])) {
    foreach (simplexml_load_string($body)->Object ?? [] as $object) {
        @unlink("{$bucket}/{$object->Key}");
    }
    answer('<DeleteResult></DeleteResult>');
}
if ($method === 'POST' && isset($query['uploads'])) {
    $id = bin2hex(random_bytes(8));
    mkdir("{$bucket}/.parts/{$id}", 0o755, true);
    answer(
        '<InitiateMultipartUploadResult><Bucket>'.$name.'</Bucket><Key>'.htmlspecialchars($key, ENT_XML1)
            ."</Key><UploadId>{$id}</UploadId></InitiateMultipartUploadResult>"
    );
}
if ($method === 'PUT' && isset($query['partNumber'])) {
    is_dir($upload) || refuse(404, 'NoSuchUpload');
    keep(sprintf('%s/%05d', $upload, (int) $query['partNumber']), $body);
    header('ETag: "'.md5($body).'"');
    exit;
}
if ($method === 'POST' && isset($query['uploadId'])) {
    is_dir($upload) || refuse(404, 'NoSuchUpload');
    $parts = glob("{$upload}/*") ?: [];
    keep($file, implode('', array_map(file_get_contents(...), $parts)));
    array_map(unlink(...), $parts);
    rmdir($upload);
    answer(
        '<CompleteMultipartUploadResult><Key>'.htmlspecialchars($key, ENT_XML1).'</Key><ETag>"'.md5_file($file)
            .'"</ETag></CompleteMultipartUploadResult>'
    );
}
if ($method === 'PUT' && headerOf('X-Amz-Copy-Source') !== '') {
    $from = "{$root}/".ltrim(rawurldecode(headerOf('X-Amz-Copy-Source')), '/');
    is_file($from) && ! str_contains($from, '..') || refuse(404, 'NoSuchKey');
    keep($file, (string) file_get_contents($from));
    answer('<CopyObjectResult><ETag>"'.md5_file($file).'"</ETag></CopyObjectResult>');
}
if ($method === 'PUT') {
    keep($file, $body);
    header('ETag: "'.md5($body).'"');
    exit;
}
if ($method === 'DELETE') {
    @unlink($file);
    http_response_code(204);
    exit;
}
refuse(405, 'MethodNotAllowed');
