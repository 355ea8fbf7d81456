require_relative "../web_helper"

# The whole journey over three meetings, by keyboard alone: what is agreed at one stands on the next, and is found
# again.
RSpec.describe "Three meetings" do
  let(:marit) { person("Marit Hauge") }
  let(:ines) { person("Ines Torvald") }
  let!(:week) do
    series(marit, {required: ines}, start: 1.day.from_now.strftime("%Y-%m-%dT09:30"), rule: "FREQ=WEEKLY;COUNT=4")
  end

  def press(*keys) = keys.each { |key| page.driver.browser.keyboard.type(key) }

  # From a page's foot or a box one types in, back to where its keys are heard.
  def leave = page.execute_script("document.activeElement.blur()")

  def open_next
    press("/")
    expect(page).to have_css "input[role=combobox]:focus"
    press("mooring")
    expect(page).to have_css "[role=option]", text: "sheet"
    press(:down, :enter)
    expect(page).to have_css ".deeds"
    leave
  end

  # Start, close and issue wait behind the same key.
  def go_on
    leave
    press("m", :enter)
  end

  def start
    go_on
    expect(page).to have_content "IN SESSION"
    leave
    press("p", "h", "c")
    expect(page).to have_content "HERE · 2 OF 2"
  end

  def write(*lines)
    leave
    press("l")
    expect(page).to have_css ".entry textarea:focus"
    lines.each { |line| press(line, :enter) }
    expect(page).to have_content "all saved"
  end

  def close_and_issue
    go_on
    expect(page).to have_content "DRAFT"
    go_on
    expect(page).to have_css ".v-dialog button[type=submit]:focus"
    press(:enter)
    expect(page).to have_content "ISSUED"
    leave
  end

  def left_over = all(".left li").map { |row| row.text.tr("\n", " ") }

  it "carry what is open, close what is done, and leave decisions and minutes behind, without a mouse" do
    began = Clock.now.utc.iso8601(3)
    sign_in_as("Marit Hauge")
    open_next
    start
    write("Ines to order shackles by Friday", "Someone to ring the yard", "Agreed: two boats")
    expect(page).to have_css ".line.action", count: 2
    close_and_issue

    open_next
    expect(page).to have_css ".left li", text: /Order shackles.*Ines Torvald/m
    start
    leave
    press("o", "d") # the first is done
    expect(page).to have_css ".card.over", count: 1
    expect(page).to have_css ".card:focus", text: "Ring the yard" # the hand goes on by itself
    press("c", "no answer", :enter)
    expect(page).to have_css ".card", text: "carried over: no answer"
    write("Decided: the crane waits")
    close_and_issue

    open_next
    expect(left_over).to contain_exactly(/Ring the yard\s+carried once/)
    start
    leave
    press("o", "x", "The yard has closed", :enter)
    expect(page).to have_css ".left li", text: "dropped: The yard has closed"
    close_and_issue

    open_next
    expect(page).to have_no_css ".left li"
    expect(Records::MinutesVersion.count).to eq 3
    register = Views::Decisions.new(by: marit).list(week)[:decisions]
    expect(register.map { |one| one[:text] }).to eq ["The crane waits", "Two boats"]
    read = []
    eventually do
      tray = JSON.parse(Net::HTTP.get(URI("#{PostOffice.address}/mails.json?to=#{address_of("Ines Torvald")}")))
      theirs = tray["mails"].select { |mail| mail["subject"].match?(/minutes/i) && mail["at"] >= began }
      sources = theirs.map { |mail| Net::HTTP.get(URI("#{PostOffice.address}/mails/#{mail["key"]}/source")) }
      (read = sources.map { |source| Mail.new(source).text_part.decoded }).size == 3
    end
    expect(read).to include(include("Yours:\n  Order shackles"))
  end
end
