require_relative "../spec_helper"
require "open3"
require "tmpdir"
require_relative "../../stand_ins/post/texts"

# Both sides against another library: the npm package smpp takes what we send, and sends what our stand-in takes.
RSpec.describe Mailing::Smpp do
  script = ->(name) { File.expand_path("../support/#{name}.mjs", __dir__) }

  def phone(port, password: "open") =
    described_class.new(address: "127.0.0.1", port: port, system_id: "leftover", password: password, from: "LeftOver")

  def with_service(script)
    Open3.popen2("node", script) do |input, output, thread|
      yield Integer(output.gets), output
      input.close
      thread.value
    end
  end

  texts = {
    "plain" => ["Monday mooring round, Mon 30 Nov, 09:30", 1],
    "with letters of other alphabets" => ["Prøv på nytt kl. 9 – Søndag 日曜", 8],
    "longer than one message" => ["Storm. " * 60, 1],
    "long, with other letters" => ["Øystese " * 40, 8]
  }

  it "sends what another library reads as the same, several in one session", :aggregate_failures do
    with_service(script.call("smpp_service")) do |port, output|
      ours = phone(port)
      texts.each_value { |text, _| ours.deliver(to: "+4755000011", text: text) }
      ours.close
      read = texts.size.times.map { JSON.parse(output.gets) }
      expect(read.map { |one| one.values_at("text", "coding") }).to eq texts.values
      expect(read.map { |one| one.values_at("to", "from", "ton") }.uniq).to eq [["4755000011", "LeftOver", 1]]
    end
  end

  it "says what will never be taken, what may be later, and what nobody takes" do
    with_service(script.call("smpp_service")) do |port, _|
      expect { phone(port).deliver(to: "+4755000000", text: "x") }.to raise_error(Mailing::Refused, /0x0B/)
      expect { phone(port).deliver(to: "+4755009999", text: "x") }.to raise_error(Mailing::Unreachable)
      expect { phone(port, password: "wrong").deliver(to: "+4755000011", text: "x") }.to raise_error(
        Mailing::Unreachable
      )
    end
    expect { phone(1).deliver(to: "+4755000011", text: "x") }.to raise_error(Mailing::Unreachable)
  end

  it "goes on after the service has hung up" do
    with_service(script.call("smpp_service")) do |port, output|
      ours = phone(port)
      ours.deliver(to: "+4755000011", text: "one")
      ours.instance_variable_get(:@socket).shutdown
      expect { ours.deliver(to: "+4755000011", text: "two") }.to raise_error(Mailing::Unreachable)
      ours.deliver(to: "+4755000011", text: "two")
      expect(2.times.map { JSON.parse(output.gets)["text"] }).to eq %w[one two]
    end
  end

  describe Post::Texts do
    it "takes what another library and our own send, and refuses numbers it does not know" do
      Dir.mktmpdir do |dir|
        port = TCPServer.open("127.0.0.1", 0) { |free| free.addr[1] }
        service = described_class.new(dir)
        thread = service.start(port)
        statuses = [["4755000011", "Tide – 日曜"], ["4755000011", "long " * 50], %w[4755000000 x]].map do |to, text|
          Open3.capture2("node", script.call("smpp_client"), port.to_s, to, text).first.to_i
        end
        Mailing::Smpp
          .new(address: "127.0.0.1", port: port, system_id: "a", password: "b", from: "LeftOver")
          .then { |ours| ours.deliver(to: "+4755000012", text: "Ours") && ours.close }
        expect([statuses, service.all.map(&:text)]).to match [
          [0, 0, 11], contain_exactly("Tide – 日曜", "long " * 50, "Ours")
        ]
      ensure
        thread&.kill
      end
    end
  end
end
