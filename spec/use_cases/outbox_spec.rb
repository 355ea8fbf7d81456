require_relative "../app_helper"
require "mail"

# Stands where an SMTP connection would; what it does with each mail is told to it.
class Counter
  attr_reader :taken

  def initialize(&answer)
    @answer = answer
    @taken = []
  end

  def deliver(to:, **)
    @answer&.call(to)
    @taken << to
  end
end

RSpec.describe UseCases::Outbox do
  let(:people) { ["Ines Torvald", "Wen Halloran", "Lars Ekeli"].map { |name| Records::Person.find(person(name)) } }
  let(:outbox) { described_class.new(clock: clock) }

  def put(reason, to = people.first) =
    outbox.put(reason: reason, to: to, subject: "Hello", text: "Hello", html: "<p>Hello</p>")

  def later(seconds) = described_class.new(clock: SetClock.new(clock.now + seconds))

  it "writes one mail for one reason" do
    expect([put("invite:1"), put("invite:1"), put("invite:2")]).to eq [true, false, true]
    expect(Records::Mail.count).to eq 2
  end

  it "is gone with the transaction that caused it" do
    Records::Base.write do
      put("invite:1")
      raise ActiveRecord::Rollback
    end
    expect(Records::Mail.count).to eq 0
  end

  it "hands each mail over once, however many workers there are" do
    30.times { |i| put("invite:#{i}", people[i % 3]) }
    counters = Array.new(4) { Counter.new }
    counters
      .map { |counter| Thread.new { nil while described_class.new(clock: clock).deliver(counter).positive? } }
      .each(&:join)
    expect(counters.sum { |counter| counter.taken.size }).to eq 30
    expect(Records::Mail.group(:state).count).to eq("sent" => 30)
  end

  it "tries again later, longer each time, when nobody takes it" do
    put("invite:1")
    refusing = Counter.new { raise Mailing::Unreachable, "connection refused" }
    outbox.deliver(refusing)
    mail = Records::Mail.first
    expect(mail).to have_attributes(
      state: "waiting", attempts: 1, last_error: "connection refused", due_at: clock.now + 2
    )
    expect(later(1).deliver(Counter.new)).to eq 0
    later(3).deliver(refusing)
    expect(mail.reload.due_at).to eq clock.now + 3 + 4
  end

  it "gives up at once when the address is refused for good, and in the end otherwise" do
    put("invite:1")
    outbox.deliver(Counter.new { raise Mailing::Refused, "550 no such user" })
    expect(Records::Mail.first).to have_attributes(state: "failed", last_error: "550 no such user")
    put("invite:2")
    described_class::MOST_ATTEMPTS.times do |i|
      later((i + 1) * 10_000).deliver(Counter.new { raise Mailing::Unreachable, "busy" })
    end
    expect(Records::Mail.find_by(reason: "invite:2").state).to eq "failed"
  end

  it "takes over from a worker that died with mail in its hands, under the same Message-ID" do
    put("invite:1")
    dying = Counter.new { raise SignalException, "KILL" }
    expect { outbox.deliver(dying) }.to raise_error(SignalException)
    expect(later(UseCases::Queue::LEASE_S - 1).deliver(Counter.new)).to eq 0
    expect(later(UseCases::Queue::LEASE_S + 1).deliver(counter = Counter.new)).to eq 1
    expect(counter.taken).to eq [people.first.email]
  end

  # What all readers of a sending are told is what was true when it was sent.
  it "composes the same mail again, whatever has changed meanwhile" do
    reader, keeper = people.first(2)
    id = series(keeper.id, {required: [reader.id, keeper.id]}, title: "Boats", mark: "bell")
    meeting = meeting_ids(id).first
    topic(meeting, keeper.id, "Safety of boats")
    use(UseCases::Answers, reader.id).keep(
      series_id: id, meeting_id: meeting_ids(id)[1], person_id: reader.id, answer: "declined", way: "page"
    )
    invite(id, keeper.id)
    mail = Records::Mail.where(series_id: id, person_id: reader.id).last
    compose = -> { described_class.new(clock: clock).send(:compose, Records::Mail.find(mail.id)) }
    before = compose.call
    Records::Series.find(id).update!(mark: "anchor", answers_asked: false, pass_on: true, remind_min: 120)
    keeper.update!(name: "Another Name")
    topic(meeting, keeper.id, "Something new")
    use(UseCases::Answers, reader.id).keep(
      series_id: id, meeting_id: meeting, person_id: reader.id, answer: "tentative", way: "page"
    )
    clock.now += 8 * 86_400
    expect(compose.call).to eq before
    expect(Mail.new(before).attachments.map(&:filename)).to eq ["agenda.pdf"]
  end

  it "tells nobody who was taken off while the mail waited" do
    keeper, reader = people.first(2)
    id = series(keeper.id, {required: reader.id}, title: "Boats")
    invite(id, keeper.id)
    Records::SeriesMember.where(series_id: id, person_id: reader.id).delete_all
    expect(handed_over.map(&:to)).not_to include [reader.email]
    expect(Records::Mail.find_by(series_id: id, person_id: reader.id).state).to eq "failed"
  end

  it "makes the Message-ID from the reason, so that a repeat is known as one" do
    ids = %w[a a b].map do |key|
      ::Mail.new(
        described_class.new.message.source(
          key: key, name: "I", address: "i@y.example", subject: "s", text: "t", html: "h", at: clock.now
        )
      ).message_id
    end
    expect([ids[0] == ids[1], ids[0] == ids[2]]).to eq [true, false]
    # What it is made from is known to browsers: without the secret nobody says it.
    expect(ids[0]).not_to include Digest::SHA256.hexdigest("a")[0, 20]
    allow(Settings).to receive(:secret).and_return("another" * 20)
    expect(described_class.new.message.message_id("a")).not_to eq ids[0]
  end
end
