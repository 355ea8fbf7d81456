require_relative "../app_helper"
require "mail"

# Each unit of background work stands alone: one that cannot be done, or ends the worker, holds up no other and is set
# aside where an admin sees why.
RSpec.describe UseCases::Queue, at: Stage::STORY do
  def set_aside = Views::SetAside.new(clock: clock).list

  let(:people) { ["Ines Torvald", "Wen Halloran", "Lars Ekeli"].map { |name| Records::Person.find(person(name)) } }

  def put(reason, to = people.first, **rest) = UseCases::Outbox.new(clock: clock).put(
    reason: reason, to: to, subject: "Hello", text: "Hello", html: "<p>Hello</p>", **rest
  )

  def post(&answer)
    taken = []
    Object.new.tap do |one|
      one.define_singleton_method(:taken) { taken }
      one.define_singleton_method(:deliver) { |to:, **| answer&.call(to) || taken << to }
    end
  end

  def deliver(post) = UseCases::Outbox.new(clock: clock).deliver(post)

  def faults = UseCases::Faults.new(clock: clock)

  it "hands over all other mail when one cannot be written, and sets that one aside after three tries" do
    put("odd")
    put("fine", people.last)
    3.times do
      clock.now += 300
      deliver(post { |to| raise ArgumentError, "bad value" if to == people.first.email })
    end
    odd, fine = %w[odd fine].map { |reason| Records::Mail.find_by(reason: reason) }
    expect([fine.state, odd.state, odd.tries]).to eq ["sent", "set_aside", 3]
    expect(set_aside[:mails]).to match [include(title: "Hello", reason: /\S/)]
    faults.try_again
    deliver(good = post)
    expect([good.taken, set_aside[:mails]]).to eq [[people.first.email], []]
  end

  it "takes what is new before what has failed" do
    put("old")
    deliver(post { raise Mailing::Unreachable, "busy" })
    clock.now += 600
    put("new", people.last)
    deliver(taken = post)
    expect(taken.taken).to eq [people.last.email, people.first.email]
  end

  it "sets aside what has ended the worker three times, whoever is next" do
    put("deadly")
    3.times do
      expect { deliver(post { raise SignalException, "KILL" }) }.to raise_error(SignalException)
      clock.now += described_class::LEASE_S + 1
    end
    deliver(taken = post)
    expect([taken.taken, Records::Mail.first.state, Records::Mail.first.last_error]).to match [
      [], "set_aside", /ended the worker 3 times/
    ]
  end

  it "keeps a claim while work on it goes on, however long it takes" do
    20.times { |i| put("slow:#{i}", people[i % 3]) }
    stub_const("UseCases::Queue::RENEW_S", 0.01)
    others = 0
    slow = post do |to|
      clock.now += 10 # each takes ten seconds, all together more than a lease
      renewed = -> { Records::Mail.where(state: "waiting").minimum(:leased_until) }
      Thread.pass until renewed.call.nil? || renewed.call > clock.now + 50
      others += UseCases::Outbox.new(clock: clock).deliver(post)
      nil
    end
    deliver(slow)
    expect([others, slow.taken.size, Records::Mail.group(:state).count]).to eq [0, 20, {"sent" => 20}]
  end

  it "lets one series without a readable rule hold up neither the others nor the mail" do
    marit = people.first.id
    first, second = Array.new(2) { series(marit, {}, rule: "FREQ=WEEKLY;BYDAY=MO") }
    Records::Series.where(id: first).update_all(rule: "FREQ=NEVER", laid_out_until: clock.now)
    Records::Series.where(id: second).update_all(laid_out_until: clock.now)
    worker = Worker.new(post: post, texts: nil, clock: clock, log: StringIO.new)
    4.times { worker.sweep }
    expect(Records::Series.find(second).laid_out_until).to be > clock.now + 300 * 86_400
    expect(Records::Fault.pluck(:step, :subject_id, :tries)).to eq [["laying_out_series", first, 3]]
    expect(set_aside[:steps]).to match [include(title: "laying out series", reason: /NEVER/)]
  end

  describe "of mail that comes in" do
    let(:marit) { people.first.id }
    let(:wen) { people[1].id }
    let(:series_id) do
      series(marit, {required: wen}).tap { |id| use(UseCases::Invitations, marit).send_all(id: key, series_id: id) }
    end

    def keep(source, sender: "wen@skerrybuoy.example") =
      UseCases::IncomingMails.new(clock: clock).keep(sender: sender, source: source.b)

    def read_all
      worker = Worker.new(post: post, texts: nil, clock: clock, log: StringIO.new)
      nil while worker.judge
    end

    def ical(*lines, method: "REPLY", stamp: "20261124T075900Z")
      [
        "BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:x", "METHOD:#{method}", "BEGIN:VEVENT",
        "UID:#{Loading::SeriesContent.uid(series_id)}", "SEQUENCE:0", "DTSTAMP:#{stamp}",
        "ORGANIZER:mailto:#{Settings.mail_from}", *lines, "END:VEVENT", "END:VCALENDAR", ""
      ].join("\r\n")
    end

    accepted = "ATTENDEE;PARTSTAT=ACCEPTED:mailto:wen@skerrybuoy.example"

    def mail(ical, head: "From: wen@skerrybuoy.example") =
      "#{head}\r\nSubject: Re\r\nMIME-Version: 1.0\r\nContent-Type: text/calendar; method=REPLY; charset=UTF-8\r\n" \
        "\r\n#{ical}"

    nested = (0...700).reduce("Content-Type: text/plain\r\n\r\nx") do |inner, i|
      "Content-Type: multipart/mixed; boundary=b#{i}\r\n\r\n--b#{i}\r\n#{inner}\r\n--b#{i}--\r\n"
    end
    {
      "700 parts, one in the other" => ->(_) { "From: wen@skerrybuoy.example\r\nMIME-Version: 1.0\r\n#{nested}" },
      "thousands of parts" => ->(_) do
        "From: x@x.example\r\nMIME-Version: 1.0\r\nContent-Type: multipart/mixed; boundary=b\r\n\r\n" \
          "#{"--b\r\nContent-Type: text/plain\r\n\r\nx\r\n" * 5_000}--b--\r\n"
      end,
      "a transfer encoding nobody knows" => ->(one) do
        one.mail(one.ical(accepted)).sub("\r\n\r\n", "\r\nContent-Transfer-Encoding: x-rot13\r\n\r\n")
      end,
      "a head of 200 KB" => ->(one) do
        "To: #{"a@x.example, " * 16_000}b@x.example\r\n#{one.mail(one.ical(accepted))}"
      end,
      "a length of 99,999,999,999 weeks" => ->(one) do
        one.mail(
          one.ical(
            "DTSTART:20261201T100000Z", "DURATION:P99999999999W", "ATTENDEE:mailto:wen@skerrybuoy.example",
            method: "COUNTER"
          )
        )
      end,
      "an address of 250 characters to delegate to" => ->(one) do
        one.mail(
          one.ical(
            "RECURRENCE-ID:20261207T083000Z",
            "ATTENDEE;PARTSTAT=DELEGATED;DELEGATED-TO=\"mailto:#{"a" * 200}@#{"b" * 40}.example\":" \
              "mailto:wen@skerrybuoy.example"
          )
        )
      end,
      "nothing but line ends" => ->(_) { "\r\n" * 500 },
      "no sense at all" => ->(_) { Random.new(1).bytes(20_000) }
    }.each do |what, source|
      it "is judged at once, and holds up no proper answer, with #{what}" do
        keep(instance_exec(self, &source), sender: "x@x.example")
        keep(mail(ical(accepted)))
        read_all
        expect(Records::IncomingMail.order(:created_at, :id).pluck(:state)).to match [/unreadable|aside/, "taken"]
        expect(Records::Answer.where(person_id: wen, answer: "accepted").count).to eq 6
      end
    end

    it "takes the answer in a mail with 8-bit bytes in From, by who the envelope says it is" do
      keep(mail(ical(accepted), head: "From: \xD8yvind <wen@skerrybuoy.example>"))
      read_all
      expect(Records::IncomingMail.pluck(:state, :remark)).to match [[/taken|aside|unreadable/, anything]]
    end

    it "cuts a comment that is longer than is kept, and counts the answer" do
      keep(mail(ical(accepted, "COMMENT:#{"word " * 400}")))
      read_all
      expect(Records::Answer.first.note).to end_with("…").and(satisfy { |note| note.length <= 500 })
    end

    it "sets aside after three tries what breaks on our side, and goes on" do
      keep(mail(ical(accepted, "X-A:1")))
      keep(mail(ical(accepted)))
      broken = Records::IncomingMail.order(:created_at, :id).first.id
      Records::IncomingMail.where(id: broken).update_all(received_at: "0000-01-01 00:00:00")
      allow(Core::Invitation::Message).to receive(:read).and_wrap_original { |read, ical, **rest|
        ical.include?("X-A:1") ? raise("our own fault") : read.call(ical, **rest)
      }
      3.times do
        read_all
        clock.now += 3_600
      end
      expect(Records::IncomingMail.order(:created_at, :id).pluck(:state)).to eq %w[set_aside taken]
      expect(set_aside[:incoming_mails]).to match [include(reason: "RuntimeError: our own fault")]
    end

    it "answers a REFRESH, but not a program's, and nobody's again and again (RFC 3834)" do
      again = -> { Records::Mail.where("reason like 'again:%'").count }
      8.times do |i|
        keep(
          mail(ical("ATTENDEE:mailto:wen@skerrybuoy.example", method: "REFRESH", stamp: "20261124T07#{10 + i}00Z"))
        )
      end
      read_all
      expect(again.call).to eq UseCases::Outbox::ANSWERS_A_DAY
      Records::Mail.delete_all
      keep(
        mail(
          ical("ATTENDEE:mailto:wen@skerrybuoy.example", method: "REFRESH", stamp: "20261124T073000Z"),
          head: "From: wen@skerrybuoy.example\r\nAuto-Submitted: auto-generated"
        )
      )
      keep(
        mail(
          ical("ATTENDEE:mailto:wen@skerrybuoy.example", method: "REFRESH", stamp: "20261124T073100Z"),
          head: "From: wen@skerrybuoy.example\r\nPrecedence: bulk"
        )
      )
      read_all
      expect([again.call, Records::IncomingMail.last.outcome]).to eq [0, "not-answered"]
    end

    it "marks its own mails as written by a program" do
      keep(mail(ical("ATTENDEE:mailto:wen@skerrybuoy.example", method: "REFRESH")))
      read_all
      sources = []
      sender = Object.new.tap { |one| one.define_singleton_method(:deliver) { |source:, **| sources << source } }
      nil while deliver(sender).positive?
      expect(sources.map { |source| ::Mail.new(source).header["Auto-Submitted"].value }.tally).to eq(
        "auto-generated" => 1, "auto-replied" => 1
      )
    end

    it "counts an answer that says it was written in years to come as of now, so that later ones count" do
      keep(mail(ical(accepted, stamp: "99991231T235959Z")))
      read_all
      clock.now += 60
      keep(mail(ical("ATTENDEE;PARTSTAT=DECLINED:mailto:wen@skerrybuoy.example", stamp: "20261124T080100Z")))
      read_all
      expect(Records::Answer.where(person_id: wen).pluck(:answer).uniq).to eq ["declined"]
    end

    it "takes an answer for somebody from a colleague who says so, and keeps aside a stranger's" do
      for_wen = ->(by) { ical("ATTENDEE;PARTSTAT=ACCEPTED;SENT-BY=\"mailto:#{by}\":mailto:wen@skerrybuoy.example") }
      keep(mail(for_wen["thief@x.example"], head: "From: thief@x.example"))
      read_all
      expect([Records::IncomingMail.last.state, Records::Answer.count]).to eq ["aside", 0]
      keep(mail(for_wen["lars@skerrybuoy.example"], head: "From: lars@skerrybuoy.example"))
      people
      read_all
      expect(Records::Answer.where(person_id: wen, answer: "accepted").count).to eq 6
    end

    it "does not take a stranger for a member whose address looks alike" do
      keep(mail(ical(accepted).sub("wen@", "wén@"), head: "From: wén@skerrybuoy.example"))
      keep(mail(ical(accepted), head: "From: w\u200Ben@skerrybuoy.example"))
      read_all
      expect([Records::IncomingMail.pluck(:state) - %w[aside unreadable], Records::Answer.count]).to eq [[], 0]
    end

    describe "whose sender the mail service has checked (RFC 8601)" do
      before { allow(Settings).to receive(:mail_checked_by).and_return(["mx.skerrybuoy.example"]) }

      {
        "mx.skerrybuoy.example; dmarc=fail header.from=skerrybuoy.example" => "aside",
        "mx.skerrybuoy.example; spf=fail smtp.mailfrom=x; dkim=none" => "aside",
        "mx.skerrybuoy.example; dmarc=pass header.from=skerrybuoy.example; spf=fail" => "taken",
        "mx.skerrybuoy.example; dmarc=none; spf=pass smtp.mailfrom=bounce@mail.skerrybuoy.example" => "taken",
        "mx.skerrybuoy.example; dkim=pass header.d=skerrybuoy.example; spf=fail" => "taken",
        "mx.skerrybuoy.example; spf=pass smtp.mailfrom=thief.example; dkim=pass header.d=thief.example" => "aside",
        "mx.skerrybuoy.example; dmarc=pass header.from=thief.example" => "aside",
        "mx.skerrybuoy.example; dmarc=pass" => "aside",
        "mx.elsewhere.example; dmarc=pass header.from=skerrybuoy.example" => "aside"
      }.each do |said, state|
        it "is #{state} where it says “#{said}”" do
          keep(mail(ical(accepted), head: "Authentication-Results: #{said}\r\nFrom: wen@skerrybuoy.example"))
          read_all
          expect(Records::IncomingMail.last.state).to eq state
        end
      end
    end

    it "believes a delivery report of a mail's recipient alone" do
      series_id
      deliver(post)
      sent = Records::Mail.find_by(recipient: "wen@skerrybuoy.example")
      report = ->(of) do
        "From: mx@x.example\r\nMIME-Version: 1.0\r\nContent-Type: multipart/report; boundary=b\r\n\r\n--b\r\n" \
          "Content-Type: message/delivery-status\r\n\r\nReporting-MTA: dns; x\r\n\r\n" \
          "Final-Recipient: rfc822; #{of}\r\nAction: failed\r\nStatus: 5.1.1\r\n\r\n--b\r\n" \
          "Content-Type: text/rfc822-headers\r\n\r\nMessage-ID: <#{sent.message_id}>\r\n\r\n--b--\r\n"
      end
      states = %w[lars@skerrybuoy.example wen@skerrybuoy.example].map do |of|
        keep(report[of])
        read_all
        sent.reload.state
      end
      expect(states).to eq %w[sent failed]
    end
  end
end
