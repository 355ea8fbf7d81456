require_relative "../spec_helper"
require "nokogiri"

# What the mail says to whom, by what the keeper has settled.
RSpec.describe Mailing::Invitation do
  content = Core::Invitation::Content.of(
    "title" => "Rope course", "purpose" => "Knots", "location" => "Net loft", "keeper" => "Marit Hauge",
    "start" => "2026-11-30T09:30:00", "time_zone" => "Europe/Oslo", "length_min" => 45, "rule" => nil, "dates" => [],
    "off" => [], "moved" => []
  )
  usual = Core::Invitation::Options.new(
    pass_on: false, answers_asked: true, sign_up: false, sign_up_limit: nil, remind_min: 0
  )
  base = {
    kind: :invited, content: content, note: nil, keeper: "Marit Hauge", role: "required", first: nil, changes: [],
    url: "http://x.example/series/1", answer_url: "http://x.example/answer/1", options: usual, calendar: nil,
    from: Time.utc(2026, 11, 24)
  }
  parts = ->(**wish) { described_class.new(**base, **wish).parts }

  {
    {} => ["You are asked to come.", ["I come", "I may come", "I cannot"]],
    {role: "optional"} => ["Come if you are free.", ["I come", "I may come", "I cannot"]],
    {role: "informed", answer_url: nil} => ["This is for your information; nobody waits for you.", []],
    {
      options: usual.with(pass_on: true)
    } => ["You are asked to come. If you cannot, you may send somebody else.", ["I come", "I may come", "I cannot"]],
    {options: usual.with(answers_asked: false)} => ["You are asked to come. No answer is needed.", []],
    {options: usual.with(sign_up: true)} => ["You are asked to come. Please sign up.", ["I sign up", "I cannot"]],
    {
      options: usual.with(sign_up: true, sign_up_limit: 12)
    } => [
      "You are asked to come. Please sign up, for there is room for 12; who comes later waits.",
      ["I sign up", "I cannot"]
    ]
  }.each do |wish, (sentence, buttons)|
    differs = wish.map do |name, value|
      (name == :options) ? value.to_h.reject { |key, one| usual.to_h[key] == one } : {name => value}
    end
    it "says “#{sentence}” where " \
      "#{differs.any? ? "it is #{differs.reduce(:merge)}" : "nothing is settled otherwise"}" do
      mail = parts.call(**wish)
      page = Nokogiri::HTML5(mail[:html])
      expect(mail[:text]).to include sentence
      expect(page.text).to include sentence
      expect(page.css("a[href*='?answer=']").map(&:text)).to eq buttons
    end
  end

  {
    invited: ["Invitation: Rope course", "Marit Hauge invites you to “Rope course”.", "Answer, without signing in:"],
    changed: ["Changed: Rope course", "Marit Hauge has changed “Rope course”.", "Answer, without signing in:"],
    brought_back: [
      "Taking place after all: Rope course", "“Rope course” takes place after all.", "Answer, without signing in:"
    ],
    called_off: [
      "Called off: Rope course", "Marit Hauge has called off “Rope course”.",
      "Why    Storm\nYou    There is nothing you need to do."
    ],
    taken_off: [
      "You need not come: Rope course", "no longer asks you to come to “Rope course”, which goes on without you.",
      "There is nothing you need to do."
    ],
    reminder: [
      "Please answer: Rope course", "Marit Hauge is waiting for your answer to “Rope course”.",
      "Answer, without signing in:"
    ]
  }.each do |kind, (subject, opening, deed)|
    it "says of #{kind} “#{subject}”, why, and what there is to do" do
      off = %i[called_off taken_off].include?(kind)
      wish = (
        if off
          {
            answer_url: nil, url: nil,
            content: content.with(off: [{"on" => "2026-11-30T09:30:00", "reason" => "Storm"}])
          }
        else
          {}
        end
      )
      mail = parts.call(kind: kind, **wish)
      expect(mail[:subject]).to eq subject
      expect(mail[:text]).to include opening, deed
      expect(Nokogiri::HTML5(mail[:html]).text).to include opening
      expect(mail[:text].include?("asked to come") || mail[:text].include?("http")).to be !off
    end
  end

  it "says the keeper's own words to who is invited, with a word for this once beside them" do
    mail = parts.call(wording: "Dear all", note: "Bring boots")
    expect(mail[:text]).to include "Dear all\n\nBring boots"
    expect(parts.call(kind: :changed, wording: "Dear all", note: "Bring boots")[:text]).to include(
      "Bring boots"
    ).and not_include("Dear all")
  end

  it "says a changed role, and gives a guest no way to sign in" do
    expect(
      parts.call(kind: :changed, role: "optional", role_before: "required")[:text]
    ).to include "You: if free (was: must come)"
    expect(parts.call(url: nil)[:text]).not_to include "signed in:"
  end

  it "strikes out what was, beside what is, and says it in the text too" do
    mail = parts.call(
      kind: :changed,
      changes: [
        {label: "Meeting", before: "Monday, 09:30", after: "Tuesday, 10:00"},
        {label: "Call", before: nil, after: "https://calls.example/a"}
      ]
    )
    rows = Nokogiri.HTML5(mail[:html]).css("tr").first(2).map { |row| [row.at("del")&.text, row.at("ins").text] }
    expect(rows).to eq [["Monday, 09:30", "Tuesday, 10:00"], [nil, "https://calls.example/a"]]
    expect(mail[:text]).to include "Meeting: Tuesday, 10:00 (was: Monday, 09:30)", "Call: https://calls.example/a\n"
  end

  it "says that an answer no longer counts where one is asked, and not where all is called off" do
    lapsed = [Core::WallTime.parse("2026-11-30T09:30")]
    said = "Your answer no longer counts"
    expect(parts.call(lapsed: lapsed)[:text]).to include said
    expect(parts.call(lapsed: lapsed, role: "informed")[:text]).not_to include said
    off = content.with(off: [{"on" => "2026-11-30T09:30:00", "reason" => "Storm"}])
    expect(parts.call(kind: :called_off, content: off, lapsed: lapsed)[:text]).not_to include said
  end

  it "lists the papers, attached or not, and no agenda or papers once it is called off" do
    papers = [{name: "chart.pdf", attached: true}, {name: "log.pdf", attached: false}]
    expect(parts.call(papers: papers)[:text]).to include "chart.pdf, attached", "log.pdf, too large to attach"
    expect(parts.call(kind: :called_off, papers: [], agenda: nil)[:text]).not_to include "chart.pdf"
  end
end

RSpec.describe Mailing::Message do
  messages = described_class.new(
    house: "House", from: "meetings@house.example", domain: "house.example", seal: :upcase.to_proc
  )
  build = ->(**wish) do
    Mail.new(
      messages.source(
        key: "k", name: "Wen", address: "wen@house.example", subject: "S", text: "t", html: "<p>t</p>",
        at: Time.at(0), **wish
      )
    )
  end

  # RFC 5322 3.6.2: who wrote it, and who has only sent it
  it "is ours, or written in somebody's name and sent by us" do
    expect([build.call.from, build.call.sender]).to eq [["meetings@house.example"], nil]
    mail = build.call(from: ["Ines, Torvald", "ines@house.example"])
    expect([mail.from, mail[:from].display_names, mail.sender]).to eq [
      ["ines@house.example"], ["Ines, Torvald"], "meetings@house.example"
    ]
  end

  it "is known by the same Message-ID each time it is made for the same reason" do
    ids = [build.call, build.call(subject: "Other"), build.call(key: "other")].map(&:message_id)
    expect([ids[0] == ids[1], ids[0] == ids[2], ids[0]]).to eq [
      true, false, "K@house.example"
    ]
  end

  # RFC 6047 2.4 wants the method beside the type; RFC 2046 5.1.4 the alternatives from plain to rich.
  it "holds text, HTML and the calendar as alternatives, with attachments beside them" do
    mail = build.call(
      calendar: "BEGIN:VCALENDAR\r\nMETHOD:REQUEST\r\nEND:VCALENDAR\r\n",
      attachments: [%w[chart.txt text/plain depth]]
    )
    inner = mail.parts.first
    expect([mail.mime_type, inner.mime_type, inner.parts.map(&:mime_type)]).to eq [
      "multipart/mixed", "multipart/alternative", %w[text/plain text/html text/calendar]
    ]
    expect(
      [inner.parts.last.content_type_parameters["method"], inner.parts.last.decoded, mail.attachments.first.decoded]
    ).to eq ["REQUEST", "BEGIN:VCALENDAR\r\nMETHOD:REQUEST\r\nEND:VCALENDAR\r\n", "depth"]
  end
end
