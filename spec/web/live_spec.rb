require_relative "../web_helper"

# The sheet while the world around it moves: two people at once, and a connection that goes.
RSpec.describe "A sheet in session" do
  let(:marit) { person("Marit Hauge") }
  let(:ines) { person("Ines Torvald") }

  before do
    @series = series(marit, {required: ines}, chair_id: ines, start: "#{today + 3}T09:30")
    @meeting = meeting_ids(@series).first
    topic(@meeting, marit, "Safety round")
    state(@meeting, marit, "in_session")
  end

  def open_sheet(name)
    sign_in_as(name)
    visit "/meetings/#{@meeting}"
    expect(page).to have_css ".entry textarea:focus"
    expect(page).to have_content "all saved"
  end

  it "shows one person's lines to the other within two seconds" do
    using_session(:ines) { open_sheet("Ines Torvald") }
    open_sheet("Marit Hauge")
    type("Ice on the east pontoon")
    type(:enter)
    using_session(:ines) { expect(page).to have_css ".line", text: "Ice on the east pontoon", wait: 2 }
    # and where each of them writes, and that something is not saved yet
    expect(page).to have_css ".topic", text: "Ines writes here"
    using_session(:ines) do
      expect(page).to have_css ".topic", text: "Marit writes here"
      type("Half a sen")
    end
    expect(page).to have_content "Ines Torvald is just typing: closing keeps what is saved by then."
  end

  it "keeps a line typed without a connection, says so, and sends it once" do
    open_sheet("Marit Hauge")
    network = page.driver.browser.network
    network.offline_mode
    type("Wind gauge reads zero")
    type(:enter)
    expect(page).to have_css ".unsent", text: "Wind gauge reads zero"
    expect(page).to have_content "1 unsent"
    network.emulate_network_conditions
    expect(page).to have_css ".line", text: "Wind gauge reads zero"
    expect(page).to have_no_css ".unsent"
    expect(Records::Line.pluck(:text)).to eq ["Wind gauge reads zero"]
  end

  it "keeps what is being typed through a reload" do
    open_sheet("Marit Hauge")
    type("Half a sente")
    visit current_path
    expect(page).to have_field("Next line under Safety round", with: "Half a sente")
  end

  it "takes a topic to another place by dragging" do
    topic(@meeting, marit, "Boats and crew")
    sign_in_as("Marit Hauge")
    visit "/meetings/#{@meeting}"
    expect(page).to have_css ".topic", count: 2
    # The browser's own drag cannot be driven from outside; these are the events it gives.
    page.execute_script(<<~JS)
      const data = new DataTransfer()
      const event = type => new DragEvent(type, { dataTransfer: data, bubbles: true, cancelable: true })
      const send = (element, type) => element.dispatchEvent(event(type))
      const [first, second] = document.querySelectorAll('.topic')
      send(second.querySelector('.handle'), 'dragstart')
      send(first, 'dragover')
      send(first, 'drop')
    JS
    expect(page).to have_css ".topic:nth-of-type(1) h2", text: "Boats and crew"
    expect(sheet(@meeting, marit)[:topics].map { |one| one[:title] }).to eq ["Boats and crew", "Safety round"]
  end

  it "asks which of two people is meant, and lets a reading be refused" do
    person("Ines Moen", email: "moen@skerrybuoy.example").then do |other|
      Records::SeriesMember.create!(series_id: @series, person_id: other, role: "required")
    end
    open_sheet("Marit Hauge")
    type("Ines to order rope")
    type(:enter)
    expect(page).to have_content "Which Ines?"
    click_button "Ines Moen"
    expect(page).to have_css ".line.action", text: /Order rope\s+Ines Moen/
    find(".entry textarea").click
    type("Marit to rest")
    expect(page).to have_content "Action for Marit Hauge"
    type(:escape)
    type(:enter)
    expect(page).to have_css ".line.note", text: "Marit to rest"
  end
end
