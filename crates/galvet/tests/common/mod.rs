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

/// A server running.
pub struct Server {
    child: Child,
    pub port: u16,
}

impl Server {
    /// Starts `galvet` with `args` and waits for the line with its address.
    pub fn start(args: &[&str]) -> Self {
        let mut child = galvet().args(args).stdout(Stdio::piped()).spawn().unwrap();
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
