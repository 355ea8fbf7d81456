# RFC 5545 3.6.2 and 3.8.2.3: a to-do with DUE as a DATE; 3.8.1.11: its states.
RSpec.describe Core::ICalendar::Todos do
  todo = lambda do |**given|
    Core::ICalendar::Todos::Todo.new(
      id: "a", text: "Order shackles, 12; now", series: "Boats", owners: ["Ines Torvald"], state: "open",
      due_on: Date.new(2026, 12, 4), closed_at: nil, changed_at: Time.utc(2026, 11, 30, 9), url: "http://x/y", **given
    )
  end

  it "writes what is to be done, by when, and how it stands" do
    text = described_class.write([todo.call, todo.call(state: "done", closed_at: Time.utc(2026, 12, 1))])
    expect(text.scan(/^(?:SUMMARY|DUE|STATUS|COMPLETED|DESCRIPTION)[^\r]*/)).to eq [
      'SUMMARY:Order shackles\, 12\; now', "DESCRIPTION:Owners: Ines Torvald", "DUE;VALUE=DATE:20261204",
      "STATUS:NEEDS-ACTION", 'SUMMARY:Order shackles\, 12\; now', "DESCRIPTION:Owners: Ines Torvald",
      "DUE;VALUE=DATE:20261204", "STATUS:COMPLETED", "COMPLETED:20261201T000000Z"
    ]
  end

  it "reads its own, and to-dos of others with a moment, owners by name or address, and no date" do
    expect(described_class.read(described_class.write([todo.call])))
      .to eq [{text: "Order shackles, 12; now", due_on: Date.new(2026, 12, 4), owners: [], done: false}]
    others = ["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:x", "BEGIN:VTODO", "UID:1", "DTSTAMP:20261130T090000Z",
      "SUMMARY:Ring the yard", "DUE:20261204T120000Z", "ATTENDEE;CN=Wen Halloran:mailto:wen@skerrybuoy.example",
      "ATTENDEE:mailto:lars@skerrybuoy.example", "STATUS:COMPLETED", "END:VTODO", "BEGIN:VTODO", "SUMMARY:Tar",
      "END:VTODO", "END:VCALENDAR", ""].join("\r\n")
    expect(described_class.read(others)).to eq [
      {text: "Ring the yard", due_on: Date.new(2026, 12, 4), owners: ["Wen Halloran", "lars@skerrybuoy.example"],
       done: true},
      {text: "Tar", due_on: nil, owners: [], done: false}
    ]
  end
end
