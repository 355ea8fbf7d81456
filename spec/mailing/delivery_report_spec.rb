require_relative "../spec_helper"
require "open3"
require "tmpdir"
require "socket"
require_relative "../../stand_ins/post/entrance"
require_relative "../../stand_ins/post/store"

# Reports of mail services (RFC 3464), and asking for them (RFC 3461); read as the email package of Python's standard
# library does.
RSpec.describe Mailing::DeliveryReport do
  def report(groups, returned: "text/rfc822-headers", headers: "Message-ID: <abc@house.example>\r\nSubject: Round")
    [
      [
        "MIME-Version: 1.0", "From: postmaster@tray.example", "Subject: Report",
        "Content-Type: multipart/report; report-type=delivery-status; boundary=b1", "", "--b1",
        "Content-Type: text/plain", "", "Words for people.", ""
      ],
      ["--b1", "Content-Type: message/delivery-status", "", groups.join("\r\n\r\n"), ""],
      ["--b1", "Content-Type: #{returned}", "", headers, ""],
      ["--b1--", ""]
    ].flatten.join("\r\n")
  end

  def by_python(source)
    script = <<~PYTHON
      import email, json, sys
      mail = email.message_from_bytes(sys.stdin.buffer.read())
      found = []
      for part in mail.walk():
          if part.get_content_type() == "message/delivery-status":
              for group in part.get_payload()[1:]:
                  if group["Action"]:
                      recipient = group["Final-Recipient"].split(";")[1].strip().lower()
                      found.append([recipient, group["Action"].lower(), group["Status"].split()[0]])
      print(json.dumps(found))
    PYTHON
    output, = Open3.capture2("/usr/bin/python3", "-c", script, stdin_data: source)
    JSON.parse(output)
  end

  about = "Reporting-MTA: dns; tray.example\r\nArrival-Date: Mon, 30 Nov 2026 08:00:00 +0000"
  {
    "one that failed" => [
      "Original-Recipient: rfc822;Wen@house.example\r\nFinal-Recipient: RFC822; Wen@house.example\r\n" \
        "Action: failed\r\nStatus: 5.1.1 (no such mailbox)\r\nDiagnostic-Code: smtp; 550 5.1.1\r\n" \
        "  There is no such mailbox"
    ],
    "one that waits" => [
      "Final-Recipient: rfc822; wen@house.example\r\nAction: Delayed\r\nStatus: 4.4.1\r\n" \
        "Will-Retry-Until: Tue, 1 Dec 2026 08:00:00 +0000"
    ],
    "two with different fates" => [
      "Final-Recipient: rfc822; wen@house.example\r\nAction: delivered\r\nStatus: 2.1.5",
      "Final-Recipient: rfc822; lars@house.example\r\nAction: failed\r\nStatus: 5.2.2"
    ]
  }.each do |situation, groups|
    it "reads #{situation} as Python does" do
      source = report([about, *groups])
      read = described_class.read(Mail.new(source))
      expect(read.outcomes.map { |one| [one.addresses.first, one.action, one.status] }).to eq by_python(source)
      expect(read.message_id).to eq "abc@house.example"
    end
  end

  it "reads a folded reason whole, and knows the mail by what is returned of it" do
    source = report(
      [
        about,
        "Final-Recipient: rfc822; wen@house.example\r\nAction: failed\r\nStatus: 5.1.1\r\n" \
          "Diagnostic-Code: smtp; 550 5.1.1\r\n  There is no such mailbox"
      ],
      returned: "message/rfc822",
      headers: "Message-ID: <abc@house.example>\r\n\r\nBody"
    )
    read = described_class.read(Mail.new(source))
    expect([read.message_id, read.outcomes.first.words]).to eq [
      "abc@house.example", "550 5.1.1 There is no such mailbox"
    ]
  end

  [
    ["a plain mail", "From: wen@house.example\r\nSubject: Hello\r\n\r\nHello"],
    ["an answer from a holiday", "From: wen@house.example\r\nAuto-Submitted: auto-replied\r\n\r\nAway"]
  ].each do |what, source|
    it "is none for #{what}" do
      expect(described_class.read(Mail.new(source))).to be_nil
    end
  end

  describe "from the post tray" do
    # Keeps what comes in.
    let(:returned) { Queue.new }

    def free_port = TCPServer.open("127.0.0.1", 0) { |server| server.addr[1] }

    def serve(kind, port)
      kind
        .new(
          ports: port.to_s, hosts: "127.0.0.1", max_processings: 4, tls_mode: :TLS_FORBIDDEN,
          auth_mode: :AUTH_OPTIONAL, logger_severity: 4
        )
        .tap { |server| yield server if block_given? }
        .tap(&:start)
    end

    around do |example|
      Dir.mktmpdir do |dir|
        queue = returned
        back = Class.new(MidiSmtpServer::Smtpd) do
          define_method(:on_message_data_event) { |ctx| queue << ctx[:message][:data] }
        end
        @port, reports_port = free_port, free_port
        @store = Post::Store.new(dir)
        servers = [
          serve(back, reports_port),
          serve(Post::Entrance, @port) { |tray| tray.store, tray.reports_port = @store, reports_port }
        ]
        example.run
        servers.each(&:stop)
      end
    end

    def send_to(address)
      ours = Mailing::Message.new(from: "meetings@house.example", domain: "house.example", house: "House",
        seal: :upcase.to_proc)
      source = ours.source(
        key: "round", name: "Wen", address: address, subject: "Round", text: "x", html: "<p>x</p>", at: Time.at(0)
      )
      Mailing::Smtp
        .new(address: "127.0.0.1", port: @port, tls: "off")
        .then { |smtp| smtp.deliver(from: "meetings@house.example", to: address, source: source) && smtp.close }
      report = Timeout.timeout(10) { returned.pop }
      [described_class.read(Mail.new(report)), by_python(report)]
    end

    it "says that a mail was delivered, as it was asked to, or that it could not be" do
      delivered, seen = send_to("wen@house.example")
      expect([delivered.outcomes.first.to_h.values.first(3).flatten.uniq, delivered.message_id]).to eq [
        seen.first, "ROUND@house.example"
      ]
      expect(seen).to eq [%w[wen@house.example delivered 2.1.5]]
      failed, seen = send_to("wen@gone.example")
      expect([failed.outcomes.first.words, seen]).to eq [
        "550 5.1.1 There is no such mailbox", [%w[wen@gone.example failed 5.1.1]]
      ]
      expect(@store.entries.map(&:to)).to eq ["wen@house.example"]
    end
  end
end
