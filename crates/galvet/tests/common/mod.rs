//! The real binary, started on a free port and ended on drop.
#![allow(dead_code, reason = "each test file uses its own part")]
#![allow(
    clippy::unwrap_used,
    clippy::expect_used,
    clippy::panic,
    reason = "tests"
)]

use std::io::{self, BufRead, BufReader, Read, Write};
use std::net::TcpStream;
use std::path::PathBuf;
use std::process::{Child, Command, Output, Stdio};
use std::thread;
use std::time::{Duration, Instant};

/// The workspace's root, where `demo/` is.
pub fn root() -> PathBuf {
    PathBuf::from(env!("CARGO_MANIFEST_DIR")).join("../..")
}

/// The binary under test.
pub fn galvet() -> Command {
    let mut command = Command::new(env!("CARGO_BIN_EXE_galvet"));
    command.current_dir(root());
    command
}

/// Runs a command to its end.
pub fn run(args: &[&str]) -> Output {
    galvet().args(args).output().unwrap()
}

/// The answer of `galvet rank` as JSON.
pub fn ranked(args: &[&str]) -> serde_json::Value {
    let output = run(&[&["rank", "--json"], args].concat());
    assert!(
        output.stderr.is_empty(),
        "{}",
        String::from_utf8_lossy(&output.stderr)
    );
    serde_json::from_slice(&output.stdout).unwrap()
}

/// Sends raw HTTP to a port; what came back, whole or cut off.
pub fn exchange(port: u16, request: &str) -> io::Result<String> {
    let mut stream = TcpStream::connect(("127.0.0.1", port))?;
    stream.write_all(request.as_bytes())?;
    let mut answer = Vec::new();
    // A server that refuses a body may close while we still write.
    let _ = stream.read_to_end(&mut answer);
    Ok(String::from_utf8_lossy(&answer).into_owned())
}

/// Saves a question under a name; whether that was acknowledged. The whole head
/// must have come: a cut answer acknowledges nothing.
pub fn save_question(port: u16, name: &str) -> bool {
    let body = format!("name={}", name.replace(' ', "+"));
    let request = format!(
        "POST /questions HTTP/1.1\r\nHost: localhost:{port}\r\nSec-Fetch-Site: same-origin\r\n\
         Content-Type: application/x-www-form-urlencoded\r\nContent-Length: {}\r\n\
         Connection: close\r\n\r\n{body}",
        body.len()
    );
    let answer = exchange(port, &request).unwrap_or_default();
    answer.starts_with("HTTP/1.1 303") && answer.contains("\r\n\r\n")
}

/// A server running.
pub struct Server {
    child: Child,
    pub port: u16,
}

impl Server {
    /// Starts `galvet` with `args` and waits for the line with its address.
    pub fn start(args: &[&str]) -> Self {
        let mut command = galvet();
        command.args(args);
        Self::of(command)
    }

    /// As [`Server::start`], started by a shell after `setting` things for it.
    pub fn start_after(setting: &str, args: &[&str]) -> Self {
        let mut command = Command::new("sh");
        command.current_dir(root());
        command.args(["-c", &format!("{setting}; exec \"$0\" \"$@\"")]);
        command.arg(env!("CARGO_BIN_EXE_galvet")).args(args);
        Self::of(command)
    }

    fn of(mut command: Command) -> Self {
        let mut child = command.stdout(Stdio::piped()).spawn().unwrap();
        let mut line = String::new();
        BufReader::new(child.stdout.take().unwrap())
            .read_line(&mut line)
            .unwrap();
        let port = line.trim().rsplit(':').next().unwrap().parse();
        Self {
            port: port.unwrap_or_else(|_| panic!("no address in {line:?}")),
            child,
        }
    }

    /// Sends raw HTTP and returns the whole answer.
    pub fn raw(&self, request: &str) -> String {
        exchange(self.port, request).unwrap()
    }

    /// Ends it at once, as a power cut would the process.
    pub fn kill(&mut self) {
        self.child.kill().unwrap();
        self.child.wait().unwrap();
    }

    /// Sends a signal (`TERM`, `HUP`) and waits for the end; how long it took.
    pub fn end_by(&mut self, signal: &str) -> Duration {
        let id = self.child.id().to_string();
        let sent = Instant::now();
        let told = Command::new("kill").args(["-s", signal, &id]).status();
        assert!(told.unwrap().success());
        while self.child.try_wait().unwrap().is_none() {
            assert!(sent.elapsed() < Duration::from_secs(20), "still there");
            thread::yield_now();
        }
        sent.elapsed()
    }

    /// GET with the right host.
    pub fn get(&self, path: &str) -> String {
        self.raw(&format!(
            "GET {path} HTTP/1.1\r\nHost: localhost:{}\r\nConnection: close\r\n\r\n",
            self.port
        ))
    }
}

impl Drop for Server {
    fn drop(&mut self) {
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
}
